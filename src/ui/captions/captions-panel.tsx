'use client';

import { clsx } from 'clsx';
import { Combine, Download, Play, Plus, Scissors, Trash2, Undo2, FileText } from 'lucide-react';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { captionsBrought } from '../../core/captions/bring-captions';
import {
  captionAdded,
  captionChanged,
  captionJoined,
  captionRemoved,
  captionSplit,
  type CaptionAddress,
} from '../../core/captions/caption-edits';
import { asSrt, asVtt, readCaptions } from '../../core/captions/caption-files';
import { faultOfCaption } from '../../core/captions/caption-lines';
import { captionLanguages, type ShownCaption } from '../../core/captions/show-captions';
import { LANGUAGE, USUAL_CAPTION_LOOK, USUAL_LANGUAGE, type CaptionLook } from '../../core/show/caption';
import { LONGEST_CAPTION } from '../../core/show/limits';
import type { FontName } from '../../core/show/words';
import { momentSeen } from '../../core/timing/frames';
import { slideSpans } from '../../core/timing/slide-span';
import { FONT_NAMES } from '../../core/show/words';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { languageName } from './language-name';

interface CaptionsPanelProps {
  readonly captions: readonly ShownCaption[];
  readonly language: string;
  readonly onLanguage: (language: string) => void;
  readonly onPlay: (fromMs: number, untilMs: number) => void;
  /** Where the viewer stands. */
  readonly momentMs: () => number;
}

/** What is read along with what is said: corrected, brought in and handed out, in several languages, beside the picture or part of it. */
export function CaptionsPanel({ captions, language, onLanguage, onPlay, momentMs }: CaptionsPanelProps) {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  const edit = useShow((state) => state.edit);
  const own = show.language ?? USUAL_LANGUAGE;
  const languages = [...new Set([own, ...captionLanguages(show), language])];
  const spans = slideSpans(show.slides);
  const of = { show, facts };
  const byHand = show.slides.filter((slide) => slide.captions?.[language]);
  const save = (kind: 'vtt' | 'srt') => {
    const text = kind === 'vtt' ? asVtt(captions, language) : asSrt(captions);
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type: kind === 'vtt' ? 'text/vtt' : 'application/x-subrip' }));
    link.download = `${show.title || 'captions'}.${language}.${kind}`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const add = () => {
    const atMs = momentMs();
    const index = spans.findLastIndex((span) => span.startMs <= atMs);
    const span = spans[Math.max(0, index)];
    if (!span) return;
    const added = captionAdded(
      of,
      { slideId: span.slideId, language },
      atMs - momentSeen(span.startMs, show.frame.rate),
      'New caption',
    );
    if (added) edit(added);
    else toast('There is a caption at this moment already. Move the viewer to where none is.');
  };
  const setLook = (look: Partial<CaptionLook> | null) =>
    edit(
      { kind: 'set-caption-look', look: look && { ...show.captionLook, ...look } },
      look ? 'caption look' : undefined,
    );
  return (
    <section aria-label="Captions" data-part="captions" className="flex min-h-full flex-col gap-3">
      <LanguageLine
        languages={languages}
        language={language}
        own={own}
        onLanguage={onLanguage}
        onBring={(file) => void bring(file)}
      />
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            data-part="burnt"
            className="accent-ink"
            checked={show.captionLook !== undefined}
            onChange={(event) => setLook(event.target.checked ? { language } : null)}
          />
          part of the picture, in the film too
        </label>
        <span className="ml-auto flex gap-1.5">
          {(['vtt', 'srt'] as const).map((kind) => (
            <Button key={kind} className="h-7 px-2" disabled={captions.length === 0} onClick={() => save(kind)}>
              <Download size={13} /> {kind === 'vtt' ? 'WebVTT' : 'SRT'}
            </Button>
          ))}
        </span>
      </div>
      {show.captionLook ? (
        <LookFields look={show.captionLook} languages={languages} own={own} onChange={setLook} />
      ) : (
        <p className="text-xs text-soft">
          Beside the picture: the film and the page it is watched on carry them, and whoever watches may switch them
          off.
        </p>
      )}
      <div className="flex items-center gap-2">
        <h2 className="text-base">
          {captions.length === 0
            ? 'No captions yet'
            : captions.length === 1
              ? 'One caption'
              : `${captions.length} captions`}
        </h2>
        <Button className="h-7 px-2" onClick={add} disabled={show.slides.length === 0}>
          <Plus size={13} /> where the viewer is
        </Button>
        {byHand.length > 0 && language === own && (
          <Button
            look="quiet"
            className="h-7 px-2"
            onClick={() =>
              edit({
                kind: 'set-captions',
                captions: byHand.map(({ id }) => ({ slideId: id, language, captions: null })),
              })
            }
          >
            <Undo2 size={13} /> all as worked out
          </Button>
        )}
      </div>
      {captions.length === 0 && (
        <p className="text-soft">
          {language === own
            ? 'Captions come by themselves where a slide has a script and a voice: write and record in the booth. Or bring in a WebVTT or SRT file.'
            : `Bring in a WebVTT or SRT file in ${languageName(language)}, or add captions one by one.`}
        </p>
      )}
      <ul className="flex flex-col gap-1">
        {captions.map((caption) => (
          <CaptionLine
            key={`${caption.slideId} ${caption.index}`}
            caption={caption}
            number={spans.findIndex((span) => span.slideId === caption.slideId) + 1}
            byHand={show.slides.some((slide) => slide.id === caption.slideId && slide.captions?.[language])}
            onPlay={() => onPlay(caption.startMs, caption.endMs)}
            onChange={(change) => {
              const changed = captionChanged(of, address(caption), change);
              if (changed) edit(changed);
            }}
            onSplit={() => {
              const split = captionSplit(of, address(caption));
              if (split) edit(split);
            }}
            onJoin={() => {
              const joined = captionJoined(of, address(caption));
              if (joined) edit(joined);
              else toast('It is the last caption of its slide: there is none after it to join it with.');
            }}
            onRemove={() => edit(captionRemoved(of, address(caption)))}
            seenMs={momentSeen(spans.find((span) => span.slideId === caption.slideId)!.startMs, show.frame.rate)}
          />
        ))}
      </ul>
    </section>
  );

  function address({ slideId, index }: ShownCaption): CaptionAddress {
    return { slideId, index, language };
  }

  async function bring(file: File): Promise<void> {
    if (file.size > LARGEST_FILE) return void toast('This file is too large for captions. Is it the right one?');
    const read = readCaptions(await file.text());
    const named = /\.([a-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)\.(?:vtt|srt)$/i.exec(file.name)?.[1];
    const said = read.language ?? named;
    const into = said && LANGUAGE.like!.pattern.test(said) ? said : language;
    const brought = captionsBrought(show, read.captions, into);
    if (!brought) {
      toast(
        read.captions.length === 0
          ? 'No captions were found in this file. WebVTT and SRT can be read.'
          : 'None of the captions in this file lies within the show.',
      );
      return;
    }
    if (!edit(brought.edit)) return;
    onLanguage(into);
    const left = brought.leftOut > 0 ? ` ${brought.leftOut} lie past the end of the show and were left out.` : '';
    toast(`${read.captions.length - brought.leftOut} captions in ${languageName(into)}.${left}`);
    for (const problem of read.problems.slice(0, 3)) toast(problem);
  }
}

const LARGEST_FILE = 8 * 1024 * 1024;

interface LanguageLineProps {
  readonly languages: readonly string[];
  readonly language: string;
  readonly own: string;
  readonly onLanguage: (language: string) => void;
  readonly onBring: (file: File) => void;
}

const OFFERED = [
  'en',
  'de',
  'fr',
  'es',
  'it',
  'nl',
  'pt',
  'pl',
  'cs',
  'sv',
  'da',
  'nb',
  'fi',
  'el',
  'tr',
  'uk',
  'ar',
  'he',
  'hi',
  'zh',
  'ja',
  'ko',
];

function LanguageLine({ languages, language, own, onLanguage, onBring }: LanguageLineProps) {
  const edit = useShow((state) => state.edit);
  const input = useRef<HTMLInputElement>(null);
  const options = [...new Set([...languages, ...OFFERED])];
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="text-soft">in</span>
      <Pick
        label="Language of the captions"
        value={language}
        groups={[
          { name: 'of this show', options: languages.map((tag) => ({ value: tag, label: languageName(tag) })) },
          {
            name: 'another',
            options: options
              .filter((tag) => !languages.includes(tag))
              .map((tag) => ({ value: tag, label: languageName(tag) })),
          },
        ]}
        onChange={onLanguage}
      />
      {language === own ? (
        <span className="text-xs text-soft">what is spoken</span>
      ) : (
        <Button look="quiet" className="h-7 px-2 text-xs" onClick={() => edit({ kind: 'set-caption-look', language })}>
          this is what is spoken
        </Button>
      )}
      <input
        ref={input}
        type="file"
        accept=".vtt,.srt,text/vtt,application/x-subrip"
        className="sr-only"
        aria-label="A WebVTT or SRT file"
        data-part="caption-file"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onBring(file);
          event.target.value = '';
        }}
      />
      <Button className="ml-auto h-7 px-2" onClick={() => input.current?.click()}>
        <FileText size={13} /> Bring in a file
      </Button>
    </div>
  );
}

interface LookFieldsProps {
  readonly look: CaptionLook;
  readonly languages: readonly string[];
  readonly own: string;
  readonly onChange: (look: Partial<CaptionLook>) => void;
}

function LookFields({ look, languages, own, onChange }: LookFieldsProps) {
  const now = { ...USUAL_CAPTION_LOOK, ...look };
  return (
    <div className="flex flex-col gap-1.5 rounded-lg bg-field p-3" data-part="caption-look">
      <div className="flex flex-wrap items-center gap-2">
        <Pick<FontName>
          label="Font of the captions"
          value={now.font}
          groups={[{ name: null, options: plainOptions(FONT_NAMES) }]}
          onChange={(font) => onChange({ font })}
        />
        <ColourField label="Colour of the captions" value={now.colour} onChange={(colour) => onChange({ colour })} />
        <Choice
          label="Where captions stand"
          value={now.place}
          onChange={(place) => onChange({ place })}
          options={[
            { value: 'bottom', label: 'below' },
            { value: 'top', label: 'above' },
          ]}
        />
        {languages.length > 1 && (
          <Pick
            label="Language in the picture"
            value={look.language ?? own}
            groups={[{ name: null, options: languages.map((tag) => ({ value: tag, label: languageName(tag) })) }]}
            onChange={(language) => onChange({ language })}
          />
        )}
      </div>
      <Amount
        label="size"
        value={now.size}
        min={0.02}
        max={0.12}
        rest={USUAL_CAPTION_LOOK.size}
        shown={`${(100 * now.size).toFixed(1)} %`}
        onChange={(size) => onChange({ size })}
      />
      <Amount
        label="dark box"
        value={now.box}
        min={0}
        max={1}
        rest={USUAL_CAPTION_LOOK.box}
        shown={now.box === 0 ? 'none' : `${Math.round(100 * now.box)} %`}
        onChange={(box) => onChange({ box })}
      />
    </div>
  );
}

interface CaptionLineProps {
  readonly caption: ShownCaption;
  readonly number: number;
  readonly byHand: boolean;
  readonly seenMs: number;
  readonly onPlay: () => void;
  readonly onChange: (change: { fromMs?: number; toMs?: number; text?: string }) => void;
  readonly onSplit: () => void;
  readonly onJoin: () => void;
  readonly onRemove: () => void;
}

function CaptionLine({
  caption,
  number,
  byHand,
  seenMs,
  onPlay,
  onChange,
  onSplit,
  onJoin,
  onRemove,
}: CaptionLineProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const fault = faultOfCaption(typed ?? caption.text, caption.endMs - caption.startMs);
  const name = `caption ${caption.index + 1} of slide ${number}`;
  return (
    <li
      data-part="caption-line"
      className="grid grid-cols-[auto_1fr_auto] items-start gap-2 rounded-md border border-transparent px-1 py-1 [content-visibility:auto] [contain-intrinsic-height:56px] hover:border-rule"
    >
      <span className="flex flex-col gap-0.5">
        <NumberField
          label={`Start of ${name}, seconds`}
          value={caption.startMs / 1000}
          min={0}
          max={1e6}
          step={0.1}
          digits={2}
          unit="s"
          onCommit={(seconds) => onChange({ fromMs: seconds * 1000 - seenMs })}
        />
        <NumberField
          label={`End of ${name}, seconds`}
          value={caption.endMs / 1000}
          min={0}
          max={1e6}
          step={0.1}
          digits={2}
          unit="s"
          onCommit={(seconds) => onChange({ toMs: seconds * 1000 - seenMs })}
        />
      </span>
      <span className="flex min-w-0 flex-col gap-0.5">
        <textarea
          aria-label={`Text of ${name}`}
          data-part="caption-text"
          rows={2}
          maxLength={LONGEST_CAPTION}
          value={typed ?? caption.text}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Escape') setTyped(null);
          }}
          onBlur={() => {
            if (typed !== null) onChange({ text: typed });
            setTyped(null);
          }}
          className="w-full resize-none rounded-md border border-rule bg-field px-2 py-1"
        />
        <span className={clsx('text-xs', fault ? 'text-red-deep' : 'text-soft')}>
          slide {number}
          {byHand ? ', by hand' : ''}
          {fault && ` · ${fault}`}
        </span>
      </span>
      <span className="flex">
        <Button look="quiet" square className="size-7" aria-label={`Play ${name}`} onClick={onPlay}>
          <Play size={13} />
        </Button>
        <Button look="quiet" square className="size-7" aria-label={`Make two of ${name}`} onClick={onSplit}>
          <Scissors size={13} />
        </Button>
        <Button look="quiet" square className="size-7" aria-label={`Join ${name} with the next`} onClick={onJoin}>
          <Combine size={13} />
        </Button>
        <Button look="quiet" square className="size-7" aria-label={`Take ${name} away`} onClick={onRemove}>
          <Trash2 size={13} />
        </Button>
      </span>
    </li>
  );
}
