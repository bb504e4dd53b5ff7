import { USUAL_CAPTION_LOOK } from '../show/caption';
import type { WordsStyle } from '../show/words';
import type { LayerPlan } from './frame-plan';
import { frameToScreen } from './box-on-screen';
import { BARE } from './plan-layers';
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
      ...BARE,
      plain: true,
      toScreen: frameToScreen(frame),
    },
  ];
}
