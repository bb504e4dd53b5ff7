import type { PlumageWith } from '../plumage/plumage';

/** How a show for a purpose is begun: how pictures are parted, what the parts are called, in which plumage, and which words are there to be rewritten. */
export interface StartingPoint {
  readonly id: string;
  readonly name: string;
  readonly description: string;
  /** By id. */
  readonly plumage: string;
  readonly with: PlumageWith;
  readonly parted: Parted;
  /** Of a picture that is seen alone. */
  readonly pictureMs: number;
  /** More pictures than this are chosen from; null: all are shown. */
  readonly most: number | null;
  /** What stands there until it is rewritten; the subtitle may be empty. */
  readonly words: { readonly title: string; readonly subtitle: string; readonly closing: string };
  /** Credits roll at the end. */
  readonly credits: boolean;
}

/** Where one part ends and the next begins. */
export type Parted =
  | { readonly by: 'nothing' }
  /** At the longest pauses between pictures, one part for each name; fewer where there are fewer pictures. */
  | { readonly by: 'pauses'; readonly names: readonly string[] }
  /** A part for each day, month or year; `name` stands before it: “Day 2”. */
  | { readonly by: 'day' | 'month' | 'year'; readonly name: string };

const ALL: PlumageWith = { opener: true, chapters: true, closer: true, several: true };

/** The starting points that ship with the app. To add one is to add it here. */
export const STARTING_POINTS: readonly StartingPoint[] = [
  {
    id: 'session',
    name: 'A session for a client',
    description: 'The best of a portrait session, quiet and large, and how to reach you at the end.',
    plumage: 'heron',
    with: { ...ALL, chapters: false },
    parted: { by: 'nothing' },
    pictureMs: 4500,
    most: 40,
    words: { title: 'Your pictures', subtitle: '', closing: 'Thank you for coming' },
    credits: false,
  },
  {
    id: 'wedding',
    name: 'A wedding',
    description: 'The day in four parts, from getting ready to the last dance, with credits.',
    plumage: 'swan',
    with: ALL,
    parted: { by: 'pauses', names: ['Getting ready', 'The ceremony', 'Together', 'The party'] },
    pictureMs: 4500,
    most: 120,
    words: { title: 'Our day', subtitle: '', closing: 'Thank you for being there' },
    credits: true,
  },
  {
    id: 'event',
    name: 'An event',
    description: 'A company’s evening, a feast, a concert: quick, parted by its pauses.',
    plumage: 'nightjar',
    with: ALL,
    parted: { by: 'pauses', names: ['Arriving', 'On stage', 'Afterwards'] },
    pictureMs: 3500,
    most: 80,
    words: { title: 'The evening', subtitle: '', closing: 'See you next time' },
    credits: true,
  },
  {
    id: 'house-tour',
    name: 'A house tour',
    description: 'A home from outside to inside, in the order the pictures were taken, calm and bright.',
    plumage: 'crane',
    with: { ...ALL, several: true },
    parted: { by: 'pauses', names: ['Outside', 'Living', 'Sleeping'] },
    pictureMs: 5000,
    most: 40,
    words: { title: 'The house', subtitle: '', closing: 'Come and see it' },
    credits: false,
  },
  {
    id: 'lesson',
    name: 'A lesson',
    description: 'One thing after the other: every picture long enough to be looked at, each step with its name.',
    plumage: 'magpie',
    with: { opener: true, chapters: true, closer: false, several: false },
    parted: { by: 'pauses', names: ['What you need', 'How it is done', 'How it turned out'] },
    pictureMs: 7000,
    most: null,
    words: { title: 'How it is done', subtitle: '', closing: '' },
    credits: false,
  },
  {
    id: 'life-story',
    name: 'A life story',
    description: 'Old pictures and new ones by their years, as pages of an album.',
    plumage: 'wren',
    with: ALL,
    parted: { by: 'year', name: '' },
    pictureMs: 5500,
    most: 100,
    words: { title: 'A life', subtitle: '', closing: 'With love' },
    credits: false,
  },
  {
    id: 'school-year',
    name: 'A school year',
    description: 'Month by month, round and colourful, as many faces as there are.',
    plumage: 'finch',
    with: ALL,
    parted: { by: 'month', name: '' },
    pictureMs: 3500,
    most: 120,
    words: { title: 'Our year', subtitle: '', closing: 'Have a good summer' },
    credits: true,
  },
  {
    id: 'travel-diary',
    name: 'A travel diary',
    description: 'Day by day, with labels, a trail on a map and the far end of the world.',
    plumage: 'swift',
    with: ALL,
    parted: { by: 'day', name: 'Day' },
    pictureMs: 4000,
    most: 100,
    words: { title: 'On the road', subtitle: '', closing: 'Home again' },
    credits: false,
  },
];
