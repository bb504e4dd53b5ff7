import type { Look } from './mount';

/** Letters and colours of mounts in a show that wears no plumage, of a studio that has none of its own. */
export const PLAIN_LOOK: Look = {
  letters: { title: 'bricolage', text: 'instrument', weight: 600, spacing: -0.01 },
  palette: { ink: '#211d19', paper: '#f6f2ea', accent: '#a8452c', soft: '#cfc3ae' },
};
