import { direction, type TransitionKindRecord } from '../transition-kind';

export const zoomBlur: TransitionKindRecord<'zoom-blur'> = {
  kind: 'zoom-blur',
  name: 'zoom blur',
  family: 'zooms',
  movesPictures: true,
  parameters: { direction: direction(['in', 'out'], 'in') },
  plan: (transition) => ({ kind: 'zoom-blur', direction: transition.direction ?? 'in' }),
};
