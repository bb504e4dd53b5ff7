import { kinds, maybe, oneOf, whole, type KindsOf, type Parts, type Schema } from '../../schema/schema';
import { schemaOf, type Parameter, type TransitionKindRecord } from '../../transitions/transition-kind';
import { TRANSITIONS } from '../../transitions/transitions';
import { LONGEST_TRANSITION_MS } from '../limits';
import { TRANSITION_FAMILIES, type Transition } from '../transition';
import { WHOLE_EASING } from './channel-schema';

const TIMED = { lengthMs: whole(0, LONGEST_TRANSITION_MS), easing: maybe(WHOLE_EASING) };

const partsOf = (record: TransitionKindRecord): Parts => ({
  ...TIMED,
  ...Object.fromEntries(
    Object.entries<Parameter>(record.parameters).map(([name, parameter]) => [name, schemaOf(parameter)]),
  ),
});

export const TRANSITION: Schema = kinds<Transition>({
  ...(Object.fromEntries(
    (Object.values(TRANSITIONS) as readonly TransitionKindRecord[]).map((record) => [record.kind, partsOf(record)]),
  ) as unknown as KindsOf<Transition>),
  cut: {},
  shuffle: { ...TIMED, family: oneOf(['all', ...TRANSITION_FAMILIES]), seed: whole(0, 1e9) },
});
