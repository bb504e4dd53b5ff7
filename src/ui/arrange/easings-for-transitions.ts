import { EASING_NAMES } from '../../core/keys/easing';

export const easingsForTransitions: readonly { value: string; label: string }[] = [
  { value: 'usual', label: 'usual pace' },
  ...EASING_NAMES.filter((name) => name !== 'hold').map((name) => ({ value: name, label: name.replace('-', ' ') })),
];
