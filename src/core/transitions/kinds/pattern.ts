import { softnessOf, type TransitionKindRecord } from '../transition-kind';

const USUAL_SOFTNESS = 0.2;

export const pattern: TransitionKindRecord<'pattern'> = {
  kind: 'pattern',
  name: 'pattern',
  family: 'patterns',
  movesPictures: false,
  parameters: {
    pattern: { is: 'pattern', usual: 'clouds' },
    inverted: { is: 'switch', label: 'the other way round', usual: false },
    softness: { is: 'softness', usual: USUAL_SOFTNESS },
  },
  plan: (transition) => {
    const { pattern, inverted = false } = transition;
    return {
      kind: 'map',
      map:
        typeof pattern === 'string'
          ? { kind: 'pattern', pattern, inverted }
          : { kind: 'own-pattern', assetId: pattern.assetId, inverted },
      softness: softnessOf(transition, USUAL_SOFTNESS),
    };
  },
};
