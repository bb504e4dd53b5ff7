import {
  COLOUR,
  kinds,
  maybe,
  oneOf,
  text,
  truth,
  whole,
  type KindsOf,
  type Parts,
  type Schema,
} from '../../schema/schema';
import { schemaOf, type Parameter, type TransitionKindRecord } from '../../transitions/transition-kind';
import { TRANSITIONS } from '../../transitions/transitions';
import { LONGEST_NAME, LONGEST_SLIDE_MS, LONGEST_TRANSITION_MS } from '../limits';
import { TRANSITION_FAMILIES, type Transition } from '../transition';
import { WHOLE_EASING } from './channel-schema';
import { LAYERS } from './layer-schema';

const TIMED = {
  lengthMs: whole(0, LONGEST_TRANSITION_MS),
  easing: maybe(WHOLE_EASING),
  kept: maybe(text(LONGEST_NAME, 1)),
  overWords: maybe(truth),
};

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
  built: {
    ...TIMED,
    name: text(LONGEST_NAME, 1),
    ofMs: whole(100, LONGEST_SLIDE_MS),
    colour: maybe(COLOUR),
    layers: LAYERS,
  },
  shuffle: { ...TIMED, family: oneOf(['all', ...TRANSITION_FAMILIES]), seed: whole(0, 1e9) },
});
