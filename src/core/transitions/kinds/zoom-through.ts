import { direction, type TransitionKindRecord } from '../transition-kind';

export const zoomThrough: TransitionKindRecord<'zoom-through'> = {
  kind: 'zoom-through',
  name: 'zoom through',
  family: 'zooms',
  movesPictures: true,
  parameters: { direction: direction(['in', 'out'], 'in') },
  plan: (transition) => ({ kind: 'zoom-through', direction: transition.direction ?? 'in' }),
};
