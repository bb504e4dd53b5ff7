import { everyLayer, type WordsLayer } from '../../show/layer';
import type { ShowEdit } from '../../show/edit';
import type { Slide } from '../../show/show';
import { textOf as wordsOf } from '../../show/words-of-slide';
import { allOf, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

/** Shorter names differ in a letter and are different names. */
const SHORTEST = 5;
const NAME = /\p{Lu}[\p{L}'’-]{4,}/gu;
/** “Ellery’s”, “Brandts”, “Fischerin”: endings of the same name, not another spelling of it. */
const ENDINGS = /^(?:[’']s|s|es|n|en|in|er|e)$/u;

interface Place {
  readonly slide: Slide;
  readonly from: 'words' | 'script';
  readonly layer: WordsLayer | null;
}

/** One name spelt in two ways: the rarer spelling is the snag. */
export const speltTwice: SnagKind = {
  title: 'Names spelt in two ways',
  advice: 'Decide for one spelling.',
  place: 'arrange',
  *find({ prepared }) {
    const places = new Map<string, Place[]>();
    const small = new Set<string>();
    for (const { slide } of slidesOf(prepared))
      for (const { text, ...place } of textsOf(slide)) {
        for (const word of text.match(/\p{Ll}[\p{L}'’-]{4,}/gu) ?? []) small.add(word);
        for (const name of text.match(NAME) ?? []) places.set(name, [...(places.get(name) ?? []), place]);
      }
    const names = [...places.keys()].filter((name) => name.length >= SHORTEST && !small.has(name.toLowerCase()));
    const told = new Set<string>();
    for (const [one, other] of closePairs(names)) {
      // Of two that are said as often the later is the slip.
      const [rare, usual] = places.get(one)!.length < places.get(other)!.length ? [one, other] : [other, one];
      if (told.has(rare)) continue;
      told.add(rare);
      const place = places.get(rare)![0]!;
      const index = prepared.show.slides.indexOf(place.slide);
      yield {
        grave: true,
        slideId: place.slide.id,
        ...(place.layer && { layerId: place.layer.id }),
        ...allOf({ span: prepared.spans[index]! }),
        of: `${rare} ${usual}`.slice(0, 100),
        sentence: `It says “${rare}” here and “${usual}” ${timesSaid(places.get(usual)!.length)}.`,
      };
    }
  },
  fixes({ prepared }, { sentence }) {
    const [, rare, usual] = /“(.+?)” here and “(.+?)”/u.exec(sentence) ?? [];
    if (!rare || !usual) return [];
    return [
      { name: `Write “${usual}”`, edit: respelt(prepared.show.slides, rare, usual) },
      { name: `Write “${rare}” everywhere`, edit: respelt(prepared.show.slides, usual, rare) },
    ];
  },
};

const timesSaid = (times: number) => (times === 1 ? 'elsewhere' : `in ${times} other places`);

function* textsOf(slide: Slide): Generator<Place & { readonly text: string }> {
  for (const layer of everyLayer(slide.layers))
    if (layer.kind === 'words') yield { slide, layer, from: 'words', text: `${layer.title}\n${layer.subtitle}` };
  if (slide.script) yield { slide, layer: null, from: 'script', text: slide.script };
}

/** Pairs that differ by one letter or by two that change places. Those that share neither their first three nor their last three letters are never such a pair but for short ones. */
function* closePairs(names: readonly string[]): Generator<readonly [string, string]> {
  const groups = new Map<string, string[]>();
  for (const name of names)
    for (const key of [`^${name.slice(0, 2)}`, `${name.slice(-3)}$`])
      groups.set(key, [...(groups.get(key) ?? []), name]);
  const seen = new Set<string>();
  for (const group of groups.values())
    for (const [at, one] of group.entries())
      for (const other of group.slice(at + 1)) {
        const key = [one, other].sort().join(' ');
        if (seen.has(key)) continue;
        seen.add(key);
        if (isSlip(one, other)) yield [one, other];
      }
}

/** Whether two names are one that was mistyped. */
function isSlip(one: string, other: string): boolean {
  const [short, long] = one.length <= other.length ? [one, other] : [other, one];
  if (long.length - short.length > 1 && !ENDINGS.test(long.slice(short.length))) return false;
  if (long.startsWith(short)) return !ENDINGS.test(long.slice(short.length)) && long.length - short.length === 1;
  let from = 0;
  while (from < short.length && short[from] === long[from]) from += 1;
  let back = 0;
  while (back < short.length - from && short.at(-1 - back) === long.at(-1 - back)) back += 1;
  const [left, right] = [short.slice(from, short.length - back), long.slice(from, long.length - back)];
  if (left.length === 0) return right.length === 1 && from > 0;
  if (left.length === 1 && right.length === 1) return from > 0;
  return left.length === 2 && right.length === 2 && left[0] === right[1] && left[1] === right[0];
}

/** A name written in another way wherever it stands. */
function respelt(slides: readonly Slide[], from: string, to: string): ShowEdit {
  const pattern = new RegExp(`(?<![\\p{L}'’-])${from.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}'’-])`, 'gu');
  const write = (text: string) => text.replace(pattern, to);
  const edits = slides.flatMap((slide): ShowEdit[] => [
    ...[...everyLayer(slide.layers)].flatMap((layer): ShowEdit[] => {
      if (layer.kind !== 'words' || (write(layer.title) === layer.title && write(layer.subtitle) === layer.subtitle))
        return [];
      const words = { ...wordsOf(layer), title: write(layer.title), subtitle: write(layer.subtitle) };
      return [{ kind: 'set-words', slideId: slide.id, layerId: layer.id, words }];
    }),
    ...(slide.script && write(slide.script) !== slide.script
      ? [{ kind: 'set-scripts' as const, scripts: [{ slideId: slide.id, script: write(slide.script) }] }]
      : []),
  ]);
  return { kind: 'together', name: `write “${to}”`, edits };
}
