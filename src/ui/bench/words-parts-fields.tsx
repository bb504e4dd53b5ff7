'use client';

import { Italic, Plus, X } from 'lucide-react';
import { LONGEST_PART, MOST_PARTS, type WordsPart } from '../../core/show/words';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';

interface WordsPartsFieldsProps {
  readonly parts: readonly WordsPart[];
  /** Title and subtitle. */
  readonly text: string;
  readonly onChange: (parts: readonly WordsPart[]) => void;
}

const FIRST_COLOUR = '#f2b84b';

/** Parts of a line that look otherwise than the rest, named by how they read. */
export function WordsPartsFields({ parts, text, onChange }: WordsPartsFieldsProps) {
  const put = (at: number, part: WordsPart) => onChange(parts.map((other, index) => (index === at ? part : other)));
  const plain = (words: string) => words.trim().replace(/\s+/gu, ' ');
  return (
    <div className="mt-2 flex flex-col gap-1.5" data-part="words-parts">
      {parts.map((part, at) => (
        <span key={at} className="flex items-center gap-2">
          <input
            aria-label={`Part ${at + 1}: the words`}
            key={part.words}
            defaultValue={part.words}
            maxLength={LONGEST_PART}
            onBlur={(event) => {
              const words = plain(event.currentTarget.value);
              if (words !== '' && words !== part.words) put(at, { ...part, words });
              else event.currentTarget.value = part.words;
            }}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.stopPropagation();
              event.currentTarget.blur();
            }}
            className="h-7 w-44 rounded-md border border-rule bg-field px-2"
          />
          <ColourField
            label={`Part ${at + 1}: its colour`}
            value={part.colour ?? '#ffffff'}
            onChange={(colour) => put(at, { ...part, colour })}
          />
          <Button
            square
            className="size-7"
            aria-label={`Part ${at + 1}: its letters lean`}
            aria-pressed={part.italic === true}
            onClick={() => {
              const { italic: _italic, ...upright } = part;
              put(at, part.italic ? upright : { ...part, italic: true });
            }}
          >
            <Italic size={14} />
          </Button>
          {!plain(text).includes(plain(part.words)) && <span className="text-xs text-soft">does not stand here</span>}
          <Button
            look="quiet"
            square
            className="ml-auto size-7"
            aria-label={`Part ${at + 1}: as the rest again`}
            onClick={() => onChange(parts.filter((_, index) => index !== at))}
          >
            <X size={14} />
          </Button>
        </span>
      ))}
      <Button
        className="h-7 self-start px-2"
        disabled={parts.length >= MOST_PARTS || plain(text) === ''}
        data-part="add-words-part"
        onClick={() =>
          onChange([...parts, { words: plain(text).split(' ').at(-1)!.slice(0, LONGEST_PART), colour: FIRST_COLOUR }])
        }
      >
        <Plus size={13} /> a part that looks otherwise
      </Button>
    </div>
  );
}
