'use client';

import { useId, useState } from 'react';
import { FILM_FORMATS, formatOf, type FilmFormatName } from '../../core/film/film-formats';
import {
  FEWEST_BYTES,
  faultOfFilm,
  faultOfSpec,
  LARGEST_FILM_PX,
  QUALITIES,
  SMALLEST_FILM_PX,
  type FilmSpec,
} from '../../core/film/film-spec';
import { shapeName, widthFor } from '../../core/show/shape';
import type { Show } from '../../core/show/show';
import { FRAME_RATES, rateName } from '../../core/timing/frame-rate';
import { showLengthMs } from '../../core/timing/slide-span';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Dialog } from '../kit/dialog';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { ShapeIcon } from './shape-icon';

interface ByHandDialogProps {
  readonly show: Show;
  readonly spec: FilmSpec;
  readonly onClose: () => void;
  readonly onTake: (spec: FilmSpec) => void;
}

const SHAPES = ['16:9', '4:3', '3:2', '1:1', '4:5', '9:16', '21:9', '8:5'];
const SLOW_RATES = ['10', '12', '15'];
const GROUPS: readonly { name: string; formats: readonly FilmFormatName[] }[] = [
  { name: 'To watch', formats: ['mp4', 'hevc', 'vp9', 'av1', 'page'] },
  { name: 'A few seconds that move', formats: ['webp', 'gif'] },
  { name: 'Sound', formats: ['m4a', 'mp3', 'flac', 'wav'] },
  { name: 'To go on with', formats: ['prores', 'ffv1', 'pngs', 'jpegs', 'pal', 'ntsc'] },
];
const QUALITY_NAMES = { light: 'light', good: 'good', best: 'best' } as const;

/** A film by its numbers. */
export function ByHandDialog({ show, spec: given, onClose, onTake }: ByHandDialogProps) {
  const [spec, setSpec] = useState(given);
  const lengthMs = showLengthMs(show);
  const format = formatOf(spec.format);
  const fault = faultOfSpec(spec) ?? faultOfFilm(show, spec);
  const own = shapeName(show.frame);
  const shapes = SHAPES.includes(own) ? SHAPES : [own, ...SHAPES];
  const change = (part: Partial<FilmSpec>) => setSpec((now) => fitting({ ...now, ...part }));
  const rates = [...SLOW_RATES, ...Object.keys(FRAME_RATES)].toSorted((a, b) => Number(a) - Number(b));
  const span = spec.span ?? { fromMs: 0, toMs: lengthMs };
  const setSpan = (next: { fromMs: number; toMs: number }) => {
    const { span: _span, ...rest } = spec;
    setSpec(next.fromMs <= 0 && next.toMs >= lengthMs ? rest : { ...rest, span: next });
  };
  return (
    <Dialog title="A film by its numbers" open onClose={onClose} className="w-[520px]">
      <div className="grid grid-cols-[110px_1fr] items-center gap-x-4 gap-y-3" data-part="by-hand-fields">
        <Row label="format">
          <Pick
            label="Format"
            value={spec.format}
            groups={GROUPS.map(({ name, formats }) => ({
              name,
              options: formats.map((value) => ({
                value,
                label: `${FILM_FORMATS[value].name} – ${FILM_FORMATS[value].note}`,
              })),
            }))}
            onChange={(next) => change({ format: next })}
          />
        </Row>
        {format.holds !== 'sound' && (
          <>
            <Row label="shape">
              <span className="flex flex-wrap gap-1">
                {shapes.map((shape) => {
                  const [across, down] = shape.split(':').map(Number) as [number, number];
                  return (
                    <button
                      key={shape}
                      type="button"
                      aria-label={`Shape ${shape}`}
                      aria-pressed={spec.shape === shape}
                      onClick={() => change({ shape })}
                      className="grid h-11 w-12 place-items-center rounded-md border border-rule aria-pressed:border-red aria-pressed:bg-red-wash/50"
                    >
                      <ShapeIcon widthPx={across} heightPx={down} size={22} />
                      <span className="tabular text-[11px] leading-none">{shape}</span>
                    </button>
                  );
                })}
              </span>
            </Row>
            <Row label="size">
              <span className="flex items-center gap-2">
                <NumberField
                  label="Width in pixels"
                  value={spec.widthPx}
                  min={SMALLEST_FILM_PX}
                  max={LARGEST_FILM_PX}
                  step={2}
                  digits={0}
                  onCommit={(widthPx) => change({ ...sizeByWidth(spec.shape, widthPx) })}
                />
                ×
                <NumberField
                  label="Height in pixels"
                  value={spec.heightPx}
                  min={SMALLEST_FILM_PX}
                  max={LARGEST_FILM_PX}
                  step={2}
                  digits={0}
                  onCommit={(heightPx) => change({ ...sizeByHeight(spec.shape, heightPx) })}
                />
                <span className="text-soft">pixels; each follows the other</span>
              </span>
            </Row>
            <Row label="frames a second">
              {format.discRate ? (
                <span className="tabular">{rateName(format.discRate)}, as the disc wants them</span>
              ) : (
                <Pick
                  label="Frames a second"
                  value={rateName(spec.rate)}
                  groups={[{ name: null, options: rates.map((value) => ({ value, label: value })) }]}
                  onChange={(name) => change({ rate: FRAME_RATES[name] ?? { frames: Number(name), seconds: 1 } })}
                />
              )}
            </Row>
            <Row label="quality">
              <Choice
                label="Quality"
                value={spec.quality}
                options={QUALITIES.map((value) => ({ value, label: QUALITY_NAMES[value] }))}
                onChange={(quality) => change({ quality })}
              />
            </Row>
          </>
        )}
        {format.fitsSize && (
          <Row label="file">
            <span className="flex items-center gap-2">
              <label className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-red"
                  checked={spec.mostBytes !== undefined}
                  onChange={(event) => {
                    const { mostBytes: _most, ...rest } = spec;
                    setSpec(event.target.checked ? { ...rest, mostBytes: 25_000_000 } : rest);
                  }}
                />
                at most
              </label>
              {spec.mostBytes !== undefined && (
                <NumberField
                  label="Largest size in megabytes"
                  value={spec.mostBytes / 1e6}
                  min={FEWEST_BYTES / 1e6}
                  max={100_000}
                  unit="MB"
                  onCommit={(mb) => change({ mostBytes: Math.round(mb * 1e6) })}
                />
              )}
              {spec.mostBytes !== undefined && <span className="text-soft">always takes as long as a new film</span>}
            </span>
          </Row>
        )}
        <Row label="stretch">
          <span className="flex items-center gap-2">
            from
            <NumberField
              label="From, seconds"
              unit="s"
              value={span.fromMs / 1000}
              min={0}
              max={Math.max(0, lengthMs / 1000 - 0.5)}
              onCommit={(seconds) => setSpan({ ...span, fromMs: seconds * 1000 })}
            />
            to
            <NumberField
              label="To, seconds"
              unit="s"
              value={Math.min(span.toMs, lengthMs) / 1000}
              min={0.5}
              max={lengthMs / 1000}
              onCommit={(seconds) => setSpan({ ...span, toMs: seconds * 1000 })}
            />
            {spec.span && (
              <Button look="quiet" onClick={() => setSpan({ fromMs: 0, toMs: lengthMs })}>
                all of it
              </Button>
            )}
          </span>
        </Row>
      </div>
      {fault && (
        <p role="alert" className="mt-3 text-red-deep">
          {fault.charAt(0).toUpperCase() + fault.slice(1)}
          {/[.!]$/.test(fault) ? '' : '.'}
        </p>
      )}
      <div className="mt-5 flex justify-end gap-2">
        <Button onClick={onClose}>Leave it</Button>
        <Button look="main" disabled={fault !== null} onClick={() => onTake(spec)} data-part="take-by-hand">
          Take these numbers
        </Button>
      </div>
    </Dialog>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  const id = useId();
  return (
    <>
      <span id={id} className="text-soft">
        {label}
      </span>
      <span role="group" aria-labelledby={id}>
        {children}
      </span>
    </>
  );
}

const even = (px: number) => Math.min(LARGEST_FILM_PX, Math.max(SMALLEST_FILM_PX, 2 * Math.round(px / 2)));

function sizeByHeight(shape: string, heightPx: number) {
  const [across, down] = shape.split(':').map(Number) as [number, number];
  const height = even(heightPx);
  const widthPx = widthFor({ widthPx: across, heightPx: down }, height);
  return widthPx > LARGEST_FILM_PX ? sizeByWidth(shape, LARGEST_FILM_PX) : { widthPx, heightPx: height };
}

function sizeByWidth(shape: string, widthPx: number) {
  const [across, down] = shape.split(':').map(Number) as [number, number];
  const width = even(widthPx);
  return { widthPx: width, heightPx: even((width * down) / across) };
}

/** What one choice asks of the others: a new shape keeps the shorter side, a disc has a size of its own. */
function fitting(spec: FilmSpec): FilmSpec {
  const { discRate, fitsSize, longestMs } = formatOf(spec.format);
  const { mostBytes, ...rest } = spec;
  const sized = fitsSize && mostBytes !== undefined ? spec : rest;
  const disc = discRate ? { ...sized, rate: discRate, shape: '16:9' } : sized;
  const [across, down] = disc.shape.split(':').map(Number) as [number, number];
  const off = Math.abs((disc.widthPx / disc.heightPx) * (down / across) - 1) > 0.01;
  const shortPx = discRate ? (spec.format === 'pal' ? 576 : 480) : Math.min(spec.widthPx, spec.heightPx);
  const size =
    off || discRate
      ? across >= down
        ? sizeByHeight(disc.shape, shortPx)
        : sizeByWidth(disc.shape, shortPx)
      : { widthPx: disc.widthPx, heightPx: disc.heightPx };
  const fitted = { ...disc, ...size };
  return longestMs !== undefined && longestMs < 60_000 && !fitted.span
    ? { ...fitted, span: { fromMs: 0, toMs: 6000 } }
    : fitted;
}
