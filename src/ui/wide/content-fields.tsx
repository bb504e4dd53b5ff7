'use client';

import { Replace } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { valueAt } from '../../core/keys/channel';
import { withValues } from '../../core/layers/column-keys';
import { withContent } from '../../core/layers/stack';
import {
  BOX_SIDES,
  type BoxLayer,
  type BoxSide,
  type Layer,
  type Shape,
  type ShapeLayer,
  type WordsLayer,
} from '../../core/show/layer';
import { LONGEST_WORDS_SUBTITLE, LONGEST_WORDS_TITLE } from '../../core/show/limits';
import { textOf } from '../../core/show/words-of-slide';
import { ChoosePrintDialog } from '../gather/choose-print-dialog';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { ColourLine } from './colour-line';
import { GradientFields } from './gradient-fields';
import { Line } from './stand-fields';
import { say, useOpenSlide } from './use-slide';
import { useWide } from './wide-store';

/** What a layer shows, and what can be said of that. */
export function ContentFields({ layer }: { layer: Layer }) {
  switch (layer.kind) {
    case 'picture':
    case 'clip':
    case 'drawing':
      return <FileFields layer={layer} />;
    case 'words':
      return <WordsFields layer={layer} />;
    case 'shape':
      return <ShapeFields layer={layer} />;
    case 'gradient':
      return (
        <Section name="Gradient">
          <GradientFields
            layer={layer}
            part="gradient"
            gradient={layer.gradient}
            onChange={(gradient) => ({ ...layer, gradient })}
          />
        </Section>
      );
    case 'solid':
      return (
        <Section name="Solid">
          <ColourLine layer={layer} path="colour" channel={layer.colour} column="colour" name="colour" />
        </Section>
      );
    case 'box':
      return <BoxFields layer={layer} />;
    case 'group':
      return null;
  }
}

function Section({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="flex flex-col gap-1.5" data-part="content-fields">
      {children}
    </section>
  );
}

function FileFields({ layer }: { layer: Extract<Layer, { assetId: unknown }> }) {
  const { put, nameOf, prepared } = useOpenSlide();
  const [choosing, setChoosing] = useState(false);
  const fileName = useShow((state) => state.entries.find((entry) => entry.assetId === layer.assetId)?.fileName);
  return (
    <Section name="File">
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate" title={fileName}>
          {fileName ?? 'a file that is not on the sheet'}
        </span>
        <Button className="h-7" data-part="replace" onClick={() => setChoosing(true)}>
          <Replace size={13} /> replace …
        </Button>
      </div>
      {choosing && (
        <ChoosePrintDialog
          title={`Instead of ${nameOf(layer)}`}
          kind={layer.kind === 'clip' ? 'clip' : 'picture'}
          part="replace-with"
          onChoose={(entry) => {
            const facts = prepared.facts.get(entry.assetId);
            const changed =
              layer.kind === 'drawing'
                ? { ...layer, assetId: entry.assetId }
                : facts && withContent(layer, entry.assetId, facts);
            if (changed) put('show another file', changed);
            else say('That file cannot be shown here.');
          }}
          onClose={() => setChoosing(false)}
        >
          <p className="text-soft">All settings of the layer stay: place, keys, light, edge, masks and ties.</p>
        </ChoosePrintDialog>
      )}
    </Section>
  );
}

function WordsFields({ layer }: { layer: WordsLayer }) {
  const { slide, edit } = useOpenSlide();
  const write = (part: { title?: string; subtitle?: string }) =>
    edit(
      { kind: 'set-words', slideId: slide.id, layerId: layer.id, words: { ...textOf(layer), ...part } },
      `words ${layer.id} ${Object.keys(part).join()}`,
    );
  const field = 'w-full resize-none rounded-md border border-rule bg-field px-2 py-1';
  return (
    <Section name="Words">
      <textarea
        aria-label="Title"
        rows={2}
        maxLength={LONGEST_WORDS_TITLE}
        value={layer.title}
        onChange={(event) => write({ title: event.target.value })}
        className={`${field} font-semibold`}
      />
      <textarea
        aria-label="Subtitle"
        rows={1}
        maxLength={LONGEST_WORDS_SUBTITLE}
        value={layer.subtitle}
        placeholder="second line"
        onChange={(event) => write({ subtitle: event.target.value })}
        className={field}
      />
      <ColourLine
        layer={layer}
        path="style/colour"
        channel={layer.style?.colour ?? '#ffffff'}
        column="colour"
        name="colour"
      />
      {layer.subtitle.trim() !== '' && (
        <ColourLine
          layer={layer}
          path="style/accent"
          channel={layer.style?.accent ?? layer.style?.colour ?? '#ffffff'}
          column="accent"
          name="subtitle"
        />
      )}
      <p className="text-xs text-soft">Fonts and how they come and go: under Words, on the folded bench.</p>
    </Section>
  );
}

const SHAPES: { readonly [Kind in Shape['kind']]: Shape } = {
  rectangle: { kind: 'rectangle' },
  ellipse: { kind: 'ellipse' },
  polygon: { kind: 'polygon', sides: 6 },
  star: { kind: 'star', points: 5, depth: 0.5 },
  free: { kind: 'free', path: 'M50 4C78 4 96 30 92 58C88 86 60 98 36 92C12 86 2 56 12 32C20 12 34 4 50 4Z' },
};

function ShapeFields({ layer }: { layer: ShapeLayer }) {
  const { put } = useOpenSlide();
  const { shape, fill } = layer;
  const reshape = (next: Shape) => put('change a shape', { ...layer, shape: next }, `shape ${layer.id} ${next.kind}`);
  return (
    <Section name="Shape">
      <div className="flex min-h-8 flex-wrap items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">shape</span>
        <Pick
          label="Shape"
          value={shape.kind}
          groups={[{ name: null, options: plainOptions(Object.keys(SHAPES) as Shape['kind'][]) }]}
          onChange={(kind) => reshape(SHAPES[kind])}
        />
        {shape.kind === 'rectangle' && (
          <NumberField
            label="Roundness of the corners, percent"
            value={100 * (shape.radius ?? 0)}
            min={0}
            max={50}
            digits={0}
            unit="%"
            onCommit={(value) =>
              reshape(value === 0 ? { kind: 'rectangle' } : { kind: 'rectangle', radius: value / 100 })
            }
          />
        )}
        {shape.kind === 'polygon' && (
          <NumberField
            label="Sides"
            value={shape.sides}
            min={3}
            max={60}
            digits={0}
            onCommit={(sides) => reshape({ ...shape, sides: Math.round(sides) })}
          />
        )}
        {shape.kind === 'star' && (
          <>
            <NumberField
              label="Points"
              value={shape.points}
              min={3}
              max={60}
              digits={0}
              onCommit={(points) => reshape({ ...shape, points: Math.round(points) })}
            />
            <NumberField
              label="Inner radius, percent"
              value={100 * shape.depth}
              min={0}
              max={100}
              digits={0}
              unit="%"
              onCommit={(depth) => reshape({ ...shape, depth: depth / 100 })}
            />
          </>
        )}
      </div>
      <div className="flex min-h-8 flex-wrap items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">filled</span>
        <Pick
          label="Filled with"
          value={fill.kind}
          groups={[
            {
              name: null,
              options: [
                { value: 'colour', label: 'a colour' },
                { value: 'linear', label: 'a gradient along a line' },
                { value: 'radial', label: 'a gradient outwards' },
                { value: 'conic', label: 'a gradient round' },
              ],
            },
          ]}
          onChange={(kind) => {
            const was = fill.kind === 'colour' ? fill.colour : fill.stops[0]!.colour;
            const stops =
              fill.kind === 'colour'
                ? [
                    { at: 0, colour: was },
                    { at: 1, colour: '#171513' },
                  ]
                : fill.stops;
            put('fill a shape otherwise', {
              ...layer,
              fill: kind === 'colour' ? { kind, colour: was } : { kind, stops },
            });
          }}
        />
      </div>
      {fill.kind === 'colour' ? (
        <ColourLine layer={layer} path="fill/colour" channel={fill.colour} column="colour" name="colour" />
      ) : (
        <GradientFields
          layer={layer}
          part="fill"
          gradient={fill}
          onChange={(gradient) => ({ ...layer, fill: gradient })}
        />
      )}
    </Section>
  );
}

function BoxFields({ layer }: { layer: BoxLayer }) {
  const { seenMs, put } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const entries = useShow((state) => state.entries);
  const [choosing, setChoosing] = useState<BoxSide | null>(null);
  const face = (side: BoxSide, next: BoxLayer['faces'][BoxSide]) =>
    put('change a side of the box', { ...layer, faces: { ...layer.faces, [side]: next } }, `face ${layer.id} ${side}`);
  return (
    <Section name="Box">
      <Line layer={layer} column="depth" name="depth">
        <NumberField
          label="Depth, heights of the frame"
          value={valueAt(layer.depth, offsetMs, seenMs)}
          min={0}
          max={100}
          step={0.05}
          digits={2}
          onCommit={(depth) =>
            put('make a box deeper', withValues(layer, { depth }, offsetMs, seenMs), `depth ${layer.id}`)
          }
        />
      </Line>
      {BOX_SIDES.map((side) => {
        const own = layer.faces[side];
        const name = own.kind === 'picture' ? entries.find((entry) => entry.assetId === own.assetId)?.fileName : null;
        return (
          <div key={side} className="flex min-h-8 items-center gap-2">
            <span className="w-[68px] shrink-0 text-soft">{side}</span>
            <Button className="h-7 min-w-0 max-w-[10rem]" onClick={() => setChoosing(side)}>
              <span className="truncate">{name ?? 'picture …'}</span>
            </Button>
            <ColourField
              label={`Colour of the ${side}`}
              value={own.kind === 'colour' ? own.colour : '#6b6359'}
              onChange={(colour) => face(side, { kind: 'colour', colour })}
            />
          </div>
        );
      })}
      {choosing && (
        <ChoosePrintDialog
          title={`The ${choosing} of the box`}
          kind="picture"
          part="face-with"
          onChoose={(entry) => face(choosing, { kind: 'picture', assetId: entry.assetId })}
          onClose={() => setChoosing(null)}
        />
      )}
    </Section>
  );
}
