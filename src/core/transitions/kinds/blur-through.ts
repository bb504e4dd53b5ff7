import { type TransitionKindRecord } from '../transition-kind';

export const blurThrough: TransitionKindRecord<'blur-through'> = {
  kind: 'blur-through',
  name: 'blur through',
  family: 'plain',
  movesPictures: false,
  parameters: {},
  plan: () => ({ kind: 'blur-through' }),
};
