/** Every command with a key, a name and a place; the map under `?`, the palette and the README read from here. */
export interface CommandInfo {
  readonly name: string;
  readonly where:
    'Everywhere' | 'Contact sheet' | 'Running order' | 'Wide bench' | 'Sound' | 'Booth' | 'Viewer' | 'Send';
  /** As shown to people. */
  readonly keys: string;
  /** For the key library: combinations separated by commas. */
  readonly combos?: string;
  /** Signs as they are typed, wherever they lie on a keyboard. */
  readonly signs?: string;
  /** Other words under which people look for it. */
  readonly also?: string;
  /** Only done where a hand already is: not offered in the palette. */
  readonly byKeyOnly?: true;
}

const command = <Id extends string>(commands: Record<Id, CommandInfo>): Readonly<Record<Id, CommandInfo>> => commands;

export const COMMANDS = command({
  undo: { name: 'Undo', where: 'Everywhere', keys: 'Ctrl Z', combos: 'mod+z' },
  redo: { name: 'Redo', where: 'Everywhere', keys: 'Ctrl Shift Z', combos: 'mod+shift+z, mod+y' },
  palette: { name: 'Find a command', where: 'Everywhere', keys: 'Ctrl K', combos: 'mod+k', byKeyOnly: true },
  keys: { name: 'Show every key', where: 'Everywhere', keys: '?', signs: '?' },
  versions: { name: 'Versions: keep one, look at one, go back', where: 'Everywhere', keys: 'Ctrl S', combos: 'mod+s' },
  gather: {
    name: 'Go to Gather',
    also: 'pictures files import upload contact sheet',
    where: 'Everywhere',
    keys: 'Alt 1',
    combos: 'alt+1',
  },
  arrange: {
    name: 'Go to Arrange',
    also: 'order slides transition words crop move',
    where: 'Everywhere',
    keys: 'Alt 2',
    combos: 'alt+2',
  },
  sound: {
    name: 'Go to Sound',
    also: 'music song voice narration fade volume',
    where: 'Everywhere',
    keys: 'Alt 3',
    combos: 'alt+3',
  },
  send: {
    name: 'Go to Send',
    also: 'film export share download screening link',
    where: 'Everywhere',
    keys: 'Alt 4',
    combos: 'alt+4',
  },
  room: {
    name: 'Light out or on: a dark room',
    also: 'dark theme night mode',
    where: 'Everywhere',
    keys: 'Alt L',
    combos: 'alt+l',
  },
  snags: {
    name: 'Look the show over: snags',
    also: 'check problems mistakes warnings review errors',
    where: 'Everywhere',
    keys: '!',
    signs: '!',
  },
  'show-live': {
    name: 'Show it in a hall',
    also: 'present projector second screen presenter live slideshow beamer',
    where: 'Everywhere',
    keys: 'Shift W',
    combos: 'shift+w',
  },
  watch: { name: 'Watch the show', also: 'play preview full screen', where: 'Everywhere', keys: 'W', combos: 'w' },

  'bring-in': {
    name: 'Bring in pictures, clips and sounds',
    also: 'import upload add files photos music song',
    where: 'Contact sheet',
    keys: 'I',
    combos: 'i',
  },
  'print-step': {
    name: 'Next, previous print',
    where: 'Contact sheet',
    keys: 'arrows',
    combos: 'left, right, up, down',
    byKeyOnly: true,
  },
  'print-stretch': {
    name: 'Stretch the selection',
    where: 'Contact sheet',
    keys: 'Shift arrows',
    combos: 'shift+left, shift+right, shift+up, shift+down',
    byKeyOnly: true,
  },
  'print-ends': {
    name: 'First, last print; with Shift up to there',
    where: 'Contact sheet',
    keys: 'Home, End',
    combos: 'home, end, shift+home, shift+end',
    byKeyOnly: true,
  },
  'all-prints': { name: 'Choose all prints', where: 'Contact sheet', keys: 'Ctrl A', combos: 'mod+a' },
  'no-prints': { name: 'Choose no print', where: 'Contact sheet', keys: 'Esc', combos: 'escape', byKeyOnly: true },
  keep: { name: 'Mark: keep', where: 'Contact sheet', keys: 'K', combos: 'k' },
  linger: { name: 'Mark: linger', where: 'Contact sheet', keys: 'L', combos: 'l' },
  'leave-out': { name: 'Mark: leave out', where: 'Contact sheet', keys: 'O', combos: 'o' },
  unmark: { name: 'Wipe the mark off', where: 'Contact sheet', keys: 'U', combos: 'u' },
  'one-by-one': { name: 'One by one: choose quickly, large', where: 'Contact sheet', keys: 'V', combos: 'v' },
  'lay-in': { name: 'Lay into the order', where: 'Contact sheet', keys: 'Enter', combos: 'enter' },
  'open-stack': {
    name: 'Open or close the stack',
    also: 'burst alike',
    where: 'Contact sheet',
    keys: 'G',
    combos: 'g',
  },
  'ask-client': {
    name: 'Ask a client: a proof to mark',
    also: 'proof choose link client pictures',
    where: 'Contact sheet',
    keys: 'A',
    combos: 'a',
  },
  'choose-for-me': {
    name: 'Choose the best for me',
    also: 'cull select pick automatic',
    where: 'Contact sheet',
    keys: 'C',
    combos: 'c',
  },
  'play-under': {
    name: 'Play the song under the show',
    also: 'music sound',
    where: 'Contact sheet',
    keys: 'M',
    combos: 'm',
  },
  start: {
    name: 'Make a show of them: a wedding, a house tour, a school year …',
    also: 'starting point automatic template wizard',
    where: 'Contact sheet',
    keys: 'D',
    combos: 'd',
  },
  clocks: {
    name: 'Put a camera’s clock right',
    also: 'time order capture',
    where: 'Contact sheet',
    keys: 'T',
    combos: 't',
  },
  'swap-print': { name: 'Swap the file everywhere', where: 'Contact sheet', keys: 'S', combos: 's' },

  'slide-step': {
    name: 'Next, previous slide',
    where: 'Running order',
    keys: '↑ ↓',
    combos: 'up, down',
    byKeyOnly: true,
  },
  'slide-stretch': {
    name: 'Stretch the selection',
    where: 'Running order',
    keys: 'Shift ↑ ↓',
    combos: 'shift+up, shift+down',
    byKeyOnly: true,
  },
  'slide-ends': {
    name: 'First, last slide; with Shift up to there',
    where: 'Running order',
    keys: 'Home, End',
    combos: 'home, end, shift+home, shift+end',
    byKeyOnly: true,
  },
  'all-slides': { name: 'Choose all slides', where: 'Running order', keys: 'Ctrl A', combos: 'mod+a' },
  'no-slides': { name: 'Choose no slide', where: 'Running order', keys: 'Esc', combos: 'escape', byKeyOnly: true },
  'move-up': { name: 'Move the slides up', where: 'Running order', keys: 'Alt ↑', combos: 'alt+up' },
  'move-down': { name: 'Move the slides down', where: 'Running order', keys: 'Alt ↓', combos: 'alt+down' },
  'move-to-start': {
    name: 'Move the slides to the start',
    where: 'Running order',
    keys: 'Alt Home',
    combos: 'alt+home',
  },
  'move-to-end': { name: 'Move the slides to the end', where: 'Running order', keys: 'Alt End', combos: 'alt+end' },
  cut: { name: 'Cut the slides', where: 'Running order', keys: 'Ctrl X' },
  copy: { name: 'Copy the slides', where: 'Running order', keys: 'Ctrl C' },
  paste: {
    name: 'Paste slides after the chosen ones, from another show too',
    where: 'Running order',
    keys: 'Ctrl V',
    byKeyOnly: true,
  },
  duplicate: { name: 'Duplicate the slides', also: 'copy', where: 'Running order', keys: 'Ctrl D', combos: 'mod+d' },
  'copy-look': {
    name: 'Copy the look of the slide',
    also: 'style adjustments light edge crop',
    where: 'Running order',
    keys: 'Y',
    combos: 'y',
  },
  'give-look': {
    name: 'Give the copied look to the slides',
    also: 'paste style adjustments apply',
    where: 'Running order',
    keys: 'Shift Y',
    combos: 'shift+y',
  },
  mounts: {
    name: 'Lay a mount on the slides',
    also: 'template layout collage opener title credits ready made',
    where: 'Running order',
    keys: 'A',
    combos: 'a',
  },
  'keep-mount': {
    name: 'Keep the slides as a mount',
    also: 'template save reuse',
    where: 'Running order',
    keys: 'Shift A',
    combos: 'shift+a',
  },
  plumage: {
    name: 'Plumage: the look of the whole show',
    also: 'theme style fonts colours vary',
    where: 'Running order',
    keys: 'D',
    combos: 'd',
  },
  'order-table': {
    name: 'The order as a table: save it, bring one back',
    also: 'csv spreadsheet export import list',
    where: 'Running order',
    keys: 'Shift S',
    combos: 'shift+s',
  },
  blank: { name: 'Insert a blank slide', where: 'Running order', keys: 'B', combos: 'b' },
  remove: { name: 'Remove the slides', where: 'Running order', keys: 'Delete', combos: 'delete, backspace' },
  transition: {
    name: 'Choose the transition into the slide',
    also: 'dissolve wipe cut seam',
    where: 'Running order',
    keys: 'N',
    combos: 'n',
  },
  title: { name: 'Type a title', also: 'words caption text', where: 'Running order', keys: 'T', combos: 't' },
  'paste-text': {
    name: 'Lay a text on the slides, a paragraph on each',
    also: 'paste document poem captions words script import',
    where: 'Running order',
    keys: 'Shift T',
    combos: 'shift+t',
  },
  shorter: { name: 'Half a second shorter; what follows moves along', where: 'Running order', keys: '−', signs: '-−' },
  longer: { name: 'Half a second longer; what follows moves along', where: 'Running order', keys: '+', signs: '+=' },
  'seam-earlier': {
    name: 'Seam half a second earlier; the next slide takes it',
    where: 'Running order',
    keys: '(',
    signs: '(',
  },
  'seam-later': {
    name: 'Seam half a second later; the next slide gives it',
    where: 'Running order',
    keys: ')',
    signs: ')',
  },
  join: { name: 'Put the pictures on one slide', where: 'Running order', keys: 'J', combos: 'j' },
  part: { name: 'Give each picture a slide of its own', where: 'Running order', keys: 'Shift J', combos: 'shift+j' },
  split: {
    name: 'Split the clip where the viewer stands',
    also: 'cut divide trim',
    where: 'Running order',
    keys: 'S',
    combos: 's',
  },
  captions: { name: 'Write the captions from the files on the slides', where: 'Running order', keys: 'C', combos: 'c' },
  waits: {
    name: 'A showing waits on the slide, or goes on',
    also: 'pause stop present by hand',
    where: 'Running order',
    keys: 'H',
    combos: 'h',
  },
  'trim-bars': { name: 'See dark bars of pictures trimmed', where: 'Running order', keys: 'X', combos: 'x' },
  tray: { name: 'Open or close the tray of prints', where: 'Running order', keys: 'P', combos: 'p' },
  scale: { name: 'Even or true scale', where: 'Running order', keys: 'E', combos: 'e' },

  'open-wide': {
    name: 'Open the bench wide: layers and keys',
    also: 'animation keyframes timeline masks layers effects advanced',
    where: 'Running order',
    keys: 'Enter',
    combos: 'enter',
  },
  loupe: {
    name: 'Lay a loupe over the picture',
    also: 'magnifier magnify zoom enlarge faces crowd glass',
    where: 'Running order',
    keys: 'O',
    combos: 'o',
  },
  turnover: {
    name: 'Let the picture turn over and show another',
    also: 'flip card back two-sided rotate',
    where: 'Running order',
    keys: 'U',
    combos: 'u',
  },
  lanterns: {
    name: 'Make lanterns of the pictures',
    also: 'cubes boxes 3d space wall ring arch',
    where: 'Running order',
    keys: 'Q',
    combos: 'q',
  },

  fold: { name: 'Fold the bench', where: 'Wide bench', keys: 'Esc', combos: 'escape' },
  'stage-play': { name: 'Play the slide, pause', where: 'Wide bench', keys: 'Space', combos: 'space' },
  'stage-nudge': {
    name: 'On the stage: nudge by a pixel of the film, with Shift by ten',
    where: 'Wide bench',
    keys: '← → ↑ ↓',
    byKeyOnly: true,
  },
  'layer-step': { name: 'In the pile: next, previous layer', where: 'Wide bench', keys: '↑ ↓', byKeyOnly: true },
  'layer-nearer': {
    name: 'Move the layer nearer, out of its group at its end',
    where: 'Wide bench',
    keys: 'Alt ↑',
    combos: 'alt+up',
  },
  'layer-farther': { name: 'Move the layer farther', where: 'Wide bench', keys: 'Alt ↓', combos: 'alt+down' },
  'layer-group': { name: 'Group the layers', where: 'Wide bench', keys: 'G', combos: 'g' },
  'layer-ungroup': {
    name: 'Take the group apart',
    also: 'ungroup',
    where: 'Wide bench',
    keys: 'Shift G',
    combos: 'shift+g',
  },
  'layer-duplicate': { name: 'Duplicate the layers', where: 'Wide bench', keys: 'Ctrl D', combos: 'mod+d' },
  'layer-remove': { name: 'Remove the layers', where: 'Wide bench', keys: 'Delete', combos: 'delete, backspace' },
  'layer-hide': { name: 'Hide or show the layers', where: 'Wide bench', keys: 'H', combos: 'h' },
  'layer-lock': { name: 'Lock or unlock the layers', where: 'Wide bench', keys: 'L', combos: 'l' },
  'layer-name': { name: 'Name the layer', also: 'rename', where: 'Wide bench', keys: 'N', combos: 'n' },
  'layer-tie': {
    name: 'Tie the layer to another',
    also: 'tether follow parent link',
    where: 'Wide bench',
    keys: 'T',
    combos: 't',
  },
  'key-here': { name: 'A key here for all that moves', also: 'keyframe', where: 'Wide bench', keys: 'K', combos: 'k' },
  'key-before': { name: 'To the key before', where: 'Wide bench', keys: '<', signs: '<' },
  'key-after': { name: 'To the key after', where: 'Wide bench', keys: '>', signs: '>' },

  'open-band': {
    name: 'Open the house band: music made to measure',
    also: 'music generate compose score',
    where: 'Sound',
    keys: 'Shift B',
    combos: 'shift+b',
  },
  'open-booth': {
    name: 'Open the booth: record a voice',
    also: 'narration microphone voiceover speak take',
    where: 'Booth',
    keys: 'B',
    combos: 'b',
  },
  record: { name: 'Record for the slide; stop', also: 'narration voice', where: 'Booth', keys: 'R', combos: 'r' },
  'record-run': {
    name: 'Run through the show from the slide',
    also: 'record narration voice over all slides',
    where: 'Booth',
    keys: 'Shift R',
    combos: 'shift+r',
  },
  'record-next': { name: 'While recording: the next slide', where: 'Booth', keys: 'Enter', combos: 'enter' },
  'record-again': {
    name: 'While recording: say the sentence again',
    where: 'Booth',
    keys: 'Backspace',
    combos: 'backspace',
  },
  'record-drop': { name: 'While recording: stop, and keep nothing', where: 'Booth', keys: 'Esc', combos: 'escape' },

  play: { name: 'Play, pause', where: 'Viewer', keys: 'Space', combos: 'space' },
  'frame-step': { name: 'One frame back, on', where: 'Viewer', keys: '← →', byKeyOnly: true },
  'second-step': { name: 'One second back, on', where: 'Viewer', keys: 'Shift ← →', byKeyOnly: true },
  'make-film': { name: 'Make the film', also: 'export render mp4', where: 'Send', keys: 'M', combos: 'm' },

  'before-light': {
    name: 'While held: the pictures before their light',
    also: 'compare original before after adjustments',
    where: 'Viewer',
    keys: 'L',
    combos: 'l',
    byKeyOnly: true,
  },
  full: { name: 'Full screen', where: 'Viewer', keys: 'F', byKeyOnly: true },
});

export type CommandId = keyof typeof COMMANDS;

export const PLACES = [
  'Everywhere',
  'Running order',
  'Wide bench',
  'Contact sheet',
  'Sound',
  'Booth',
  'Viewer',
  'Send',
] as const;

/** The commands of one place, in the order of the table. */
export function commandsOf(where: CommandInfo['where']): readonly CommandInfo[] {
  return Object.values<CommandInfo>(COMMANDS).filter((entry) => entry.where === where);
}
