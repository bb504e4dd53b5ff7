'use client';

import { fieldValues, filledWords, hasFields, WORD_FIELDS, type WordField } from '../../core/words/fields';
import type { Slide } from '../../core/show/show';
import { usePrepared } from '../show/show-provider';

/** What a person calls them. */
const NAMES: Record<WordField, string> = {
  date: 'date',
  time: 'time',
  place: 'place',
  caption: 'caption of the file',
  number: 'number of the slide',
  of: 'how many slides',
  title: 'title of the show',
};

interface WordsFillProps {
  readonly slide: Slide;
  readonly title: string;
  readonly subtitle: string;
  readonly onInsert: (text: string) => void;
}

/** Fields that fill themselves, put in at one press, and what the words read with them. */
export function WordsFill({ slide, title, subtitle, onInsert }: WordsFillProps) {
  const { show, facts } = usePrepared();
  const index = show.slides.findIndex(({ id }) => id === slide.id);
  if (index < 0) return null;
  const values = fieldValues(show, facts, index);
  const reads = [title, subtitle].map((text) => filledWords(text, values)).filter((text) => text.trim() !== '');
  return (
    <div className="flex flex-col gap-1 text-xs" data-part="words-fill">
      <p className="flex flex-wrap items-center gap-1">
        <span className="mr-1 text-soft">Fills itself:</span>
        {WORD_FIELDS.map((field) => (
          <button
            key={field}
            type="button"
            onClick={() => onInsert(`{${field}}`)}
            title={values[field] || 'The file of this picture does not say.'}
            aria-label={`Put in the ${NAMES[field]}: ${values[field] || 'this picture’s file does not say'}`}
            className={`rounded-full border border-rule px-2 py-px hover:border-soft ${values[field] ? 'text-ink' : 'border-dashed text-soft'}`}
          >
            {NAMES[field]}
          </button>
        ))}
      </p>
      {(hasFields(title) || hasFields(subtitle)) && (
        <p className="text-soft" data-part="words-read">
          Here it reads{' '}
          {reads.length > 0 ? (
            <b className="font-medium text-ink">{reads.join(' / ')}</b>
          ) : (
            'nothing: the file does not say.'
          )}
        </p>
      )}
    </div>
  );
}
