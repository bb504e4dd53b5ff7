'use client';

import { ArrowDown, ArrowUp, X } from 'lucide-react';
import {
  LONGEST_MENU_MS,
  MENU_WORD_NAMES,
  MENU_WORDS,
  SHORTEST_MENU_MS,
  type DiscChange,
  type DiscEntry,
  type MenuSaid,
} from '../../core/disc/disc-plan';
import { STANDARDS, STANDARD_NAMES } from '../../core/disc/disc-standard';
import type { DiscSeen } from '../../server/disc/seen-disc';
import type { ShelfEntry } from '../../server/shows/show-service';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clock } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { useAnswer } from '../show/use-answer';
import { TypedLine } from './typed-line';

interface DiscPlanProps {
  readonly seen: DiscSeen;
  readonly isMaking: boolean;
  readonly onChange: (change: DiscChange) => Promise<void>;
}

const SILENT = 'none';
const FIELD = 'w-full border-rule bg-field';

/** What is asked of a disc. */
export function DiscPlanPanel({ seen, isMaking, onChange }: DiscPlanProps) {
  const { plan } = seen;
  return (
    <section
      aria-label="What is on the disc"
      className="flex w-[356px] shrink-0 flex-col gap-6 overflow-y-auto border-r border-rule bg-card px-5 py-4 scroll-more"
      data-part="disc-plan"
    >
      <fieldset disabled={isMaking} className="contents">
        <Films seen={seen} onChange={onChange} />
        <div>
          <h2 className="text-base font-semibold">The disc</h2>
          <Row name="Below its title">
            <TypedLine
              key={plan.words}
              label="Below its title"
              value={plan.words}
              placeholder="A date, a place"
              className={FIELD}
              onChange={(words) => void onChange({ words })}
            />
          </Row>
          <Row name="Televisions">
            <Choice
              label="Which televisions it is for"
              value={plan.standard}
              options={STANDARD_NAMES.map((value) => ({ value, label: STANDARDS[value].name }))}
              onChange={(standard) => void onChange({ standard })}
            />
            <Choice
              label="Shape"
              value={plan.shape}
              options={[
                { value: '16:9', label: '16:9' },
                { value: '4:3', label: '4:3' },
              ]}
              onChange={(shape) => void onChange({ shape })}
            />
          </Row>
          <p className="mt-1 text-soft">
            {plan.standard === 'pal' ? 'Europe, most of Asia, Africa, Australia' : 'North America, Japan, Korea'}
          </p>
          <Row name="Put in, it">
            <Choice
              label="What it shows first"
              value={plan.begins}
              options={[
                { value: 'menu', label: 'shows the menu' },
                { value: 'film', label: 'plays' },
              ]}
              onChange={(begins) => void onChange({ begins })}
            />
          </Row>
          <Row name="At the end">
            <Choice
              label="What follows the end"
              value={plan.afterwards}
              options={[
                { value: 'menu', label: 'the menu' },
                { value: 'again', label: 'all again' },
              ]}
              onChange={(afterwards) => void onChange({ afterwards })}
            />
          </Row>
          <Row name="Chapters">
            <Choice
              label="Where chapters begin"
              value={plan.chaptersBy}
              options={[
                { value: 'titles', label: 'as titled' },
                { value: 'slides', label: 'each slide' },
                { value: 'none', label: 'none' },
              ]}
              onChange={(chaptersBy) => void onChange({ chaptersBy })}
            />
          </Row>
          <Row name="Blank disc">
            <Choice
              label="Blank disc"
              value={String(plan.layers)}
              options={[
                { value: '1', label: '4.7 GB' },
                { value: '2', label: '8.5 GB' },
              ]}
              onChange={(layers) => void onChange({ layers: layers === '2' ? 2 : 1 })}
            />
          </Row>
        </div>
        <Menu seen={seen} onChange={onChange} />
      </fieldset>
    </section>
  );
}

function Films({ seen, onChange }: Only<'seen' | 'onChange'>) {
  const { plan, films } = seen;
  const { answer } = useAnswer<{ shows: ShelfEntry[] }>('/api/v1/shows', { quiet: true });
  const shelf = answer?.shows ?? [];
  const on = new Set(plan.films.map(({ showId }) => showId));
  const others = shelf.filter(({ id, place, slideCount }) => place === 'shelf' && slideCount > 0 && !on.has(id));
  const set = (list: readonly DiscEntry[]) => void onChange({ films: list });
  const swap = (from: number, to: number) =>
    set(plan.films.map((film, index) => plan.films[index === from ? to : index === to ? from : index] ?? film));
  return (
    <div>
      <h2 className="text-base font-semibold">On it</h2>
      <ol className="mt-2 flex flex-col gap-1.5">
        {plan.films.map((entry, index) => {
          const known = films.find(({ showId }) => showId === entry.showId);
          const title = shelf.find(({ id }) => id === entry.showId)?.title ?? known?.title ?? '';
          return (
            <li key={entry.showId} className="flex flex-wrap items-center justify-end gap-1" data-part="disc-film">
              <TypedLine
                key={entry.title}
                label={`What the menu calls ${title}`}
                value={entry.title}
                placeholder={title}
                className={FIELD}
                onChange={(typed) =>
                  set(plan.films.map((film) => (film.showId === entry.showId ? { ...film, title: typed } : film)))
                }
              />
              <span className="mr-auto text-soft">
                {known && (
                  <>
                    <span className="tabular">{clock(known.lengthMs)}</span>
                    {known.chapters.length > 1 && `, ${known.chapters.length} chapters`}
                  </>
                )}
              </span>
              <Button
                look="quiet"
                square
                className="size-6"
                aria-label={`${title} earlier`}
                disabled={index === 0}
                onClick={() => swap(index, index - 1)}
              >
                <ArrowUp size={13} />
              </Button>
              <Button
                look="quiet"
                square
                className="size-6"
                aria-label={`${title} later`}
                disabled={index === plan.films.length - 1}
                onClick={() => swap(index, index + 1)}
              >
                <ArrowDown size={13} />
              </Button>
              <Button
                look="quiet"
                square
                className="size-6"
                aria-label={`Take ${title} off the disc`}
                onClick={() => set(plan.films.filter(({ showId }) => showId !== entry.showId))}
              >
                <X size={13} />
              </Button>
            </li>
          );
        })}
      </ol>
      {plan.films.length === 0 && <p className="mt-1 text-soft">Nothing yet.</p>}
      {others.length > 0 && (
        <div className="mt-2" data-part="put-on-disc">
          <Pick<string>
            key={plan.films.length}
            label="Put a show on the disc"
            value=""
            groups={[
              { name: null, options: others.map(({ id, title }) => ({ value: id, label: title || 'Untitled' })) },
            ]}
            placeholder="Put a show on it"
            onChange={(showId) => set([...plan.films, { showId, title: '' }])}
          />
        </div>
      )}
    </div>
  );
}

type Only<Names extends keyof DiscPlanProps> = { readonly [Name in Names]: DiscPlanProps[Name] };

function Menu({ seen, onChange }: Only<'seen' | 'onChange'>) {
  const { menu } = seen.plan;
  const set = (change: Partial<MenuSaid>) => void onChange({ menu: change });
  const shelves = [...new Set(seen.mounts.map(({ shelf }) => shelf))];
  return (
    <div>
      <h2 className="text-base font-semibold">The menu</h2>
      <Row name="Its design">
        <Pick
          label="The mount of the menu"
          value={menu.mount}
          groups={shelves.map((shelf) => ({
            name: shelf,
            options: seen.mounts
              .filter((mount) => mount.shelf === shelf)
              .map(({ id, name }) => ({ value: id, label: name })),
          }))}
          onChange={(mount) => set({ mount })}
        />
      </Row>
      <Row name="Buttons">
        <Choice
          label="Where the buttons are"
          value={menu.buttons}
          options={[
            { value: 'left', label: 'left' },
            { value: 'right', label: 'right' },
            { value: 'below', label: 'below' },
          ]}
          onChange={(buttons) => set({ buttons })}
        />
      </Row>
      <Row name="Music">
        <Pick
          label="Music of the menu"
          value={menu.song ?? SILENT}
          groups={[
            {
              name: null,
              options: [
                { value: SILENT, label: 'silent' },
                ...seen.songs.map(({ id, name }) => ({ value: id, label: name })),
              ],
            },
          ]}
          onChange={(song) => set({ song: song === SILENT ? null : song })}
        />
      </Row>
      <Row name="Its pictures">
        <Choice
          label="Its pictures"
          value={menu.moves ? 'move' : 'rest'}
          options={[
            { value: 'move', label: 'move' },
            { value: 'rest', label: 'rest' },
          ]}
          onChange={(value) => set({ moves: value === 'move' })}
        />
      </Row>
      <Row name="Goes round in">
        <NumberField
          label="After how many seconds the menu begins again"
          value={menu.lengthMs / 1000}
          min={SHORTEST_MENU_MS / 1000}
          max={LONGEST_MENU_MS / 1000}
          digits={0}
          unit="s"
          onCommit={(seconds) => set({ lengthMs: Math.round(seconds) * 1000 })}
        />
      </Row>
      <details className="mt-2.5">
        <summary className="cursor-pointer text-soft">Its words</summary>
        <div className="mt-2 grid grid-cols-2 gap-1.5">
          {MENU_WORD_NAMES.map((word) => (
            <TypedLine
              key={`${word} ${menu.says[word] ?? ''}`}
              label={`Instead of “${MENU_WORDS[word]}”`}
              value={menu.says[word] ?? ''}
              placeholder={MENU_WORDS[word]}
              longest={40}
              className={FIELD}
              onChange={(said) => set({ says: { ...menu.says, [word]: said } })}
            />
          ))}
        </div>
      </details>
    </div>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="mt-2.5 flex items-center gap-2">
      <span className="w-[6.5rem] shrink-0 text-soft">{name}</span>
      {children}
    </div>
  );
}
