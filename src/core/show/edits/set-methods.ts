import type { MethodPins } from '../../facts/fact-kinds';
import { METHODS } from '../schemas/slide-schema';
import { done } from './changing';
import type { EditRecord } from './edit-record';

/** Goes over to other methods of finding out about files: what was worked out by itself may come out otherwise. */
export interface SetMethods {
  readonly kind: 'set-methods';
  readonly methods: MethodPins;
}

export const setMethods: EditRecord<SetMethods> = {
  kind: 'set-methods',
  parts: { methods: METHODS },
  apply: (show, edit) => done({ ...show, methods: edit.methods }, { kind: 'set-methods', methods: show.methods }),
  touched: () => ['methods'],
  sentence: () => 'go over to newer methods',
};
