'use client';

import { Hand, Pin } from 'lucide-react';
import { isHeld } from '../../core/show/chosen';
import { useDraggable } from '@dnd-kit/core';
import { clsx } from 'clsx';
import { memo } from 'react';
import type { ShowBeat } from '../../core/sound/show-beats';
import { takesOf } from '../../core/sound/sound-spans';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { SlideMoves } from '../../core/motion/plan-moves';
import type { SlideId } from '../../core/show/ids';
import type { Slide } from '../../core/show/show';
import { catchName } from '../../core/timing/caught-seam';
import type { SlideSpan } from '../../core/timing/slide-span';
import { clockTenths } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import type { Music } from '../show/use-music';
import type { OrderDrop } from './order-drop';
import { Seam } from './seam';
import { SeamHandle, type SeamDrag } from './seam-handle';
import type { Snag } from '../../core/snags/snag';
import type { RowOfNotes } from '../guests/guests-provider';
import { RowNotes } from '../guests/row-notes';
import { RowSnags } from '../snags/row-snags';
import { isSimple } from '../../core/show/layout';
import { DrawnPrint } from './drawn-print';
import { SlidePicture } from './slide-picture';
import { SoundStrip } from './sound-strip';
import { WordsCell } from './words-cell';

interface SlideRowProps {
  readonly slide: Slide;
  readonly span: SlideSpan;
  readonly topPx: number;
  readonly heightPx: number;
  readonly facts: PreparedShow['facts'];
  readonly moves: SlideMoves;
  readonly music: Music;
  readonly beats: readonly ShowBeat[];
  /** Film pixels for each of the picture's own, when it is too small for its framing. */
  readonly enlargement: number | null;
  /** What will embarrass on it. */
  readonly snags: readonly Snag[] | undefined;
  /** What viewers wrote at it. */
  readonly notes: RowOfNotes | undefined;
  readonly selected: boolean;
  readonly leading: boolean;
  readonly typing: boolean;
  readonly dragged: boolean;
  readonly caret: OrderDrop['side'] | null;
  /** The drag of the seam at this slide's end. */
  readonly seam: SeamDrag | null;
  readonly onClick: (slide: Slide, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  readonly onType: (slide: Slide | null) => void;
  readonly onLength: (slide: Slide, lengthMs: number) => void;
  readonly onGo: (momentMs: number) => void;
  readonly onOpen: (slide: SlideId) => void;
  readonly onPlay: (fromMs: number, untilMs: number) => void;
  readonly onSeamDrag: (drag: SeamDrag | null) => void;
  readonly onSeamDone: (drag: SeamDrag) => void;
}

/** One slide in the running order: time, sound, picture with its framings, words. */
export const SlideRow = memo(function SlideRow(props: SlideRowProps) {
  const {
    slide,
    span,
    topPx,
    heightPx,
    facts,
    moves,
    music,
    beats,
    enlargement,
    snags,
    notes,
    selected,
    leading,
    typing,
    dragged,
    caret,
    seam,
    onClick,
    onType,
    onLength,
    onGo,
    onOpen,
    onPlay,
    onSeamDrag,
    onSeamDone,
  } = props;
  const { setNodeRef: setDragRef, listeners, attributes } = useDraggable({ id: slide.id });
  const printHeight = Math.max(20, Math.min(104, heightPx - 26));
  const printWidth = Math.round(printHeight * (16 / 9));
  const small = heightPx < 84;
  return (
    <div
      role="row"
      aria-selected={selected}
      aria-rowindex={span.slideIndex + 1}
      aria-label={`Slide ${span.slideIndex + 1}`}
      data-part="slide"
      data-slide={slide.id}
      onClick={(event) => {
        // Typing a length is not choosing a slide; it must keep the caret.
        if (!(event.target as HTMLElement).closest('input')) onClick(slide, event);
      }}
      onDoubleClick={(event) => {
        if (!(event.target as HTMLElement).closest('input, textarea, button, [data-part=words]')) onOpen(slide.id);
      }}
      // Not a transform: the dragging library measures where things stand without theirs.
      style={{ top: topPx, height: heightPx }}
      className={clsx(
        'absolute inset-x-0 grid grid-cols-[68px_76px_206px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)] gap-x-2 select-none border-t border-rule pr-4 pl-3',
        selected ? 'bg-card' : 'bg-transparent',
        dragged && 'opacity-35',
      )}
    >
      {(caret === 'before' || caret === 'after') && (
        <span
          aria-hidden="true"
          data-part="caret"
          className={clsx(
            'pointer-events-none absolute inset-x-2 z-20 h-[3px] rounded-full bg-red',
            caret === 'before' ? '-top-[2px]' : '-bottom-[2px]',
          )}
        />
      )}
      {caret === 'beside' && (
        <span
          aria-hidden="true"
          data-part="caret-beside"
          className="pointer-events-none absolute inset-y-2 left-[374px] z-20 w-[176px] rounded-md border-2 border-dashed border-red bg-red-wash/90 px-2 pt-1.5 font-semibold text-red-deep"
        >
          beside this picture
        </span>
      )}
      {seam && (
        <span
          aria-hidden="true"
          className="tabular pointer-events-none absolute -bottom-[13px] left-[152px] z-30 rounded-md bg-black px-2 py-1 text-xs whitespace-nowrap text-lamp shadow-raised"
        >
          {(slide.lengthMs / 1000).toFixed(1)} s{' '}
          {seam.by && <span className="text-lamp">on {catchName(seam.by)} · </span>}
          <span className="text-lamp-soft">
            {seam.way === 'roll' ? 'the next slide gives or takes it' : 'what follows moves along · Alt: only the next'}
          </span>
        </span>
      )}
      <div role="gridcell" className="overflow-hidden pt-3">
        <span className="tabular block">{clockTenths(span.startMs)}</span>
        {isHeld(slide, 'length') && !small && (
          <span
            role="img"
            aria-label="This length was set by hand and is held"
            title="Set by hand: fitting to the music leaves it"
            data-part="held"
            className="absolute top-[43px] left-[66px] text-soft"
          >
            <Pin size={11} aria-hidden="true" />
          </span>
        )}
        {!small && (
          <NumberField
            label={`Length of slide ${span.slideIndex + 1} in seconds`}
            value={slide.lengthMs / 1000}
            min={0.2}
            max={86_400}
            step={0.5}
            unit="s"
            onCommit={(seconds) => onLength(slide, Math.round(seconds * 1000))}
            className="mt-1 -ml-1.5 text-soft [&_input]:h-6 [&_input]:w-auto [&_input]:max-w-14 [&_input]:[field-sizing:content] [&_input]:border-transparent [&_input]:bg-transparent [&_input]:text-soft hover:[&_input]:border-rule"
          />
        )}
        {slide.waits && (
          <span
            role="img"
            aria-label="A showing waits here"
            title="A showing waits here until it is told to go on"
            data-part="row-waits"
            className="absolute right-3 bottom-1.5 flex items-center gap-1 text-xs text-soft"
          >
            <Hand size={12} aria-hidden="true" /> {!small && 'waits'}
          </span>
        )}
        {notes && <RowNotes notes={notes} small={small} />}
        {snags && <RowSnags snags={snags} slideId={slide.id} small={small} />}
      </div>
      <div role="gridcell" aria-label="Sound">
        <SoundStrip
          music={music}
          startMs={span.startMs}
          endMs={span.endMs}
          widthPx={60}
          heightPx={heightPx}
          takes={takesOf(slide, facts)}
          beats={beats}
        />
      </div>
      <div role="gridcell" className={clsx('flex items-center', small ? 'justify-start' : 'pt-2')}>
        <div
          ref={setDragRef}
          {...listeners}
          {...attributes}
          role="img"
          aria-roledescription="picture that can be dragged"
          aria-label={`Picture of slide ${span.slideIndex + 1}`}
          tabIndex={-1}
          className={clsx(
            'relative cursor-grab touch-none bg-print p-[4px] shadow-print',
            selected && 'outline-[3px] outline-offset-1 outline-red',
          )}
        >
          {isSimple(slide) ? (
            <SlidePicture slide={slide} facts={facts} moves={moves} widthPx={printWidth} heightPx={printHeight} />
          ) : (
            <DrawnPrint slide={slide} widthPx={printWidth} heightPx={printHeight}>
              <SlidePicture slide={slide} facts={facts} moves={moves} widthPx={printWidth} heightPx={printHeight} />
            </DrawnPrint>
          )}
          {enlargement !== null && (
            <span
              title="The picture is too small for its framing: it will look soft"
              className="absolute top-1.5 left-1.5 rounded-sm bg-card px-1 text-xs font-medium text-saffron-deep"
            >
              soft: {enlargement.toFixed(1)} ×
            </span>
          )}
          <span
            className={clsx(
              'tabular absolute right-1.5 bottom-1 text-xs text-white [text-shadow:0_0_3px_black,0_0_3px_black]',
              leading && 'font-bold',
            )}
          >
            {span.slideIndex + 1}
            <span aria-hidden="true" className="text-[9px]">
              ▸
            </span>
          </span>
        </div>
      </div>
      <div role="gridcell" className="min-w-0 overflow-hidden pt-2.5">
        <WordsCell slide={slide} typing={typing} selected={selected} onType={onType} />
      </div>
      <SeamHandle index={span.slideIndex} onDrag={onSeamDrag} onDone={onSeamDone} />
      {span.slideIndex > 0 && (
        <div role="gridcell" className="absolute -top-[11px] left-[164px] z-10">
          <Seam slide={slide} transitionMs={span.transitionMs} startMs={span.startMs} onGo={onGo} onPlay={onPlay} />
        </div>
      )}
    </div>
  );
});
