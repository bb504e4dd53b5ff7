import { USUAL_CAPTION_LOOK } from '../show/caption';
import type { WordsStyle } from '../show/words';
import type { LayerPlan } from './frame-plan';
import type { PreparedShow } from './plan-frame';

/** The caption that is read at a moment, as words over the whole frame; where words lie within the frame’s safe area these do too. */
export function planCaption(
  { show, captions }: PreparedShow,
  momentMs: number,
  frame: { readonly widthPx: number; readonly heightPx: number },
): LayerPlan[] {
  const shown = captions.findLast(({ startMs }) => startMs <= momentMs);
  if (!shown || shown.endMs <= momentMs) return [];
  const look = { ...USUAL_CAPTION_LOOK, ...show.captionLook };
  const style: WordsStyle = {
    font: look.font,
    weight: 500,
    size: look.size,
    colour: look.colour,
    align: 'centre',
    measure: 0.86,
    lineSpacing: 1.1,
    shadow: look.box > 0 ? 'none' : { colour: '#000000', opacity: 0.8, softness: 0.12, x: 0, y: 0.03 },
    ...(look.box > 0 && { box: { colour: '#171513', opacity: look.box, padding: 0.35, radius: 0.14 } }),
  };
  return [
    {
      content: {
        kind: 'words',
        look: {
          title: shown.text,
          subtitle: '',
          place: look.place,
          style,
          unit: 'all',
          crawls: false,
          rolls: false,
        },
        passage: {
          entrance: { way: 'none', by: 'all', share: 1 },
          exit: { way: 'none', by: 'all', share: 0 },
          travel: null,
        },
      },
      toScreen: [frame.widthPx, 0, 0, 0, frame.heightPx, 0, 0, 0, 1],
      plain: true,
      crop: { left: 0, top: 0, right: 0, bottom: 0 },
      cuts: [],
      opacity: 1,
      blurPx: 0,
      blend: 'normal',
      edge: null,
      vignette: 0,
      masks: [],
    },
  ];
}
