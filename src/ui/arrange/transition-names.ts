import { EASING_NAMES } from '../../core/keys/easing';
import type { TransitionKind } from '../../core/show/transition';

export const TRANSITION_NAMES: Readonly<Record<TransitionKind, string>> = {
  cut: 'cut',
  dissolve: 'dissolve',
  dip: 'dip to colour',
  burn: 'burn',
  'blur-through': 'blur through',
  mosaic: 'mosaic',
  wipe: 'wipe',
  blinds: 'blinds',
  clock: 'clock',
  iris: 'iris',
  checks: 'checks',
  pattern: 'pattern',
  push: 'push',
  'slide-over': 'slide over',
  'slide-off': 'slide off',
  'slide-apart': 'slide apart',
  'zoom-through': 'zoom through',
  'zoom-blur': 'zoom blur',
  'page-turn': 'page turn',
  'card-turn': 'card turn',
  'cube-turn': 'cube turn',
  shuffle: 'shuffle',
};

export const easingsForTransitions: readonly { value: string; label: string }[] = [
  { value: 'usual', label: 'usual pace' },
  ...EASING_NAMES.filter((name) => name !== 'hold').map((name) => ({ value: name, label: name.replace('-', ' ') })),
];
