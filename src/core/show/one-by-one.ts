import type { ShowEdit } from './edit';
import type { Channel } from '../keys/channel';
import { picturesOf } from './layout';
import type { Slide } from './show';

/** Each takes so long to come. */
const COMES_MS = 600;
/** They have all come after this share of the slide, however many they are. */
const ALL_THERE = 0.6;
const MOST_STEP_MS = 1500;

/** Whether the slide's pictures come one after the other. */
export function comeOneByOne(slide: Slide): boolean {
  const pictures = picturesOf(slide);
  return pictures.length > 1 && pictures.slice(1).every(({ channels }) => typeof channels?.opacity === 'object');
}

/** The edit after which the slide's pictures come one after the other, in their order, or all at once. The first is there from the beginning. */
export function letComeOneByOne(slide: Slide, oneByOne: boolean): ShowEdit {
  const pictures = picturesOf(slide);
  const stepMs = Math.min(MOST_STEP_MS, (ALL_THERE * slide.lengthMs) / pictures.length);
  const comes = (index: number): Channel => ({
    keys: [
      { at: { tied: 'start', ms: Math.round(index * stepMs) }, value: 0, easing: 'settle' },
      { at: { tied: 'start', ms: Math.round(index * stepMs + Math.min(COMES_MS, stepMs)) }, value: 1 },
    ],
  });
  return {
    kind: 'together',
    name: oneByOne ? 'let the pictures come one after the other' : 'let the pictures come together',
    edits: pictures.slice(1).map(({ id }, index) => ({
      kind: 'set-channels',
      slideId: slide.id,
      layerId: id,
      channels: { opacity: oneByOne ? comes(index + 1) : null },
    })),
  };
}
