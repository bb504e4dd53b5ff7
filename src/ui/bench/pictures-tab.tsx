'use client';

import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { nanoid } from 'nanoid';
import { toast } from 'sonner';
import {
  isSimple,
  joinSlides,
  laidOut,
  LAYOUT_NAMES,
  layoutOf,
  layoutsFor,
  partSlide,
  picturesOf,
  type Layout,
  type Window,
} from '../../core/show/layout';
import type { ClipLayer, Layer, PictureLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { windowsOn } from '../../core/show/windows';
import { LayoutSketch } from '../arrange/layout-sketch';
import { runCommand } from '../commands/use-commands';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';
import { useChosenSlides } from './chosen-layers';
import { usePictureUrl } from '../show/file-url';
import { WindowFields } from './window-fields';

/** The pictures of a slide: how they share the frame, in what order, and each on its own again. */
export function PicturesTab({ slide }: { slide: Slide }) {
  const pictureUrl = usePictureUrl();
  const show = useShow((state) => state.show);
  const entries = useShow((state) => state.entries);
  const edit = useShow((state) => state.edit);
  const chosen = useChosenSlides(slide);
  const pictures = picturesOf(slide);
  const { frame } = show;
  const joinable = chosen.length > 1 ? chosen.flatMap(picturesOf).length : 0;
  const layout = layoutOf(slide, frame) ?? layoutsFor(pictures.length)[0]!;
  const put = (next: readonly (PictureLayer | ClipLayer)[], as: Layout, name: string) =>
    edit({ kind: 'together', name, edits: [{ kind: 'put-slides', slides: [laidOut(slide, next, as, frame)] }] });
  const swap = (at: number, by: -1 | 1) => {
    const next = [...pictures];
    [next[at], next[at + by]] = [next[at + by]!, next[at]!];
    // Windows that were moved by hand stay where they are: the pictures change places in them.
    const stay = layoutOf(slide, frame) ? null : windowsOn(slide);
    const laid = laidOut(slide, next, layout, frame);
    const slides = [stay ? { ...laid, layers: laid.layers.map((layer, index) => inWindow(layer, stay[index])) } : laid];
    edit({ kind: 'together', name: 'change the order of the pictures', edits: [{ kind: 'put-slides', slides }] });
  };
  const nameOf = (layer: PictureLayer | ClipLayer) =>
    entries.find((entry) => entry.assetId === layer.assetId)?.fileName ?? 'a picture';
  const apart = () => {
    const parted = partSlide(show, slide, () => nanoid(10));
    if (parted) edit(parted);
  };
  if (joinable > 1) {
    return (
      <div className="flex flex-col gap-3" data-part="pictures">
        <p>
          Put the <b className="tabular">{joinable}</b> pictures of the <b className="tabular">{chosen.length}</b>{' '}
          chosen slides on one:
        </p>
        <Layouts
          count={joinable}
          current={null}
          onChoose={(as) => {
            const joined = joinSlides(
              show,
              chosen.map((entry) => entry.id),
              as,
            );
            if (joined) edit(joined);
            else
              toast(
                'These cannot be put on one slide: only one of them may have words and one a narration, and none other layers.',
              );
          }}
        />
      </div>
    );
  }
  if (!isSimple(slide))
    return (
      <div className="flex flex-col items-start gap-3" data-part="pictures">
        <p className="text-soft">
          This slide is built of layers, which a layout would throw about. Its pictures are placed with the bench opened
          wide.
        </p>
        <Button className="h-7" onClick={() => runCommand('open-wide')}>
          open wide
        </Button>
      </div>
    );
  if (pictures.length < 2)
    return (
      <p className="text-soft">
        One picture has the frame to itself. To put another beside it, drag a print from the tray onto this slide, drag
        another slide over its words, or choose several slides and press J.
      </p>
    );
  return (
    <div className="flex flex-col gap-3" data-part="pictures">
      <Layouts
        count={pictures.length}
        current={layoutOf(slide, frame)}
        onChoose={(as) => put(pictures, as, 'change the layout')}
      />
      <ol className="flex flex-col gap-1.5">
        {pictures.map((layer, at) => (
          <li key={layer.id} className="flex items-center gap-2">
            {/* eslint-disable-next-line @next/next/no-img-element */}
            <img src={pictureUrl(layer.assetId, 320)} alt="" className="h-9 w-14 bg-surround object-cover" />
            <span className="min-w-0 flex-1 truncate">{nameOf(layer)}</span>
            <Button
              look="quiet"
              square
              aria-label={`${nameOf(layer)} earlier`}
              disabled={at === 0}
              onClick={() => swap(at, -1)}
            >
              <ArrowUp size={14} />
            </Button>
            <Button
              look="quiet"
              square
              aria-label={`${nameOf(layer)} later`}
              disabled={at === pictures.length - 1}
              onClick={() => swap(at, 1)}
            >
              <ArrowDown size={14} />
            </Button>
            <Button
              look="quiet"
              square
              aria-label={`Take ${nameOf(layer)} off the slide`}
              onClick={() => {
                const rest = pictures.filter((other) => other !== layer);
                put(
                  rest,
                  layoutsFor(rest.length).includes(layout) ? layout : layoutsFor(rest.length)[0]!,
                  'take a picture off the slide',
                );
              }}
            >
              <X size={14} />
            </Button>
          </li>
        ))}
      </ol>
      <WindowFields slide={slide} />
      <div>
        <Button className="h-7" onClick={apart}>
          a slide for each
        </Button>
      </div>
    </div>
  );
}

function inWindow(layer: Layer, window: Window | undefined): Layer {
  return window ? { ...layer, channels: { ...layer.channels, ...window } } : layer;
}

function Layouts({
  count,
  current,
  onChoose,
}: {
  count: number;
  current: Layout | null;
  onChoose: (layout: Layout) => void;
}) {
  const frame = useShow((state) => state.show.frame);
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="Layout">
      {layoutsFor(count).map((layout) => (
        <button
          key={layout}
          type="button"
          aria-pressed={current === layout}
          onClick={() => onChoose(layout)}
          className={`flex items-center gap-2 rounded-md border px-2.5 py-1.5 ${current === layout ? 'border-black bg-rule/40' : 'border-rule hover:border-soft'}`}
        >
          <LayoutSketch layout={layout} count={count} frame={frame} /> {LAYOUT_NAMES[layout]}
        </button>
      ))}
    </div>
  );
}
