'use client';

import { chosenAfterRemoval } from '../../core/show/after-removal';
import { nanoid } from 'nanoid';
import { useMemo, type RefObject } from 'react';
import { toast } from 'sonner';
import type { ShowEdit } from '../../core/show/edit';
import { layerId, type SlideId } from '../../core/show/ids';
import {
  addToSlide,
  joinSlides,
  layoutsFor,
  MOST_IN_A_LAYOUT,
  partSlide,
  picturesOf,
  type Layout,
} from '../../core/show/layout';
import { blankSlide, copyOfSlide, layerFromAsset, slideFromAsset } from '../../core/show/new-slide';
import { SHORTEST_SLIDE_MS } from '../../core/show/limits';
import { mainLayerOf, wordsOf, type Slide } from '../../core/show/show';
import { movedSeam, type SeamWay } from '../../core/timing/moved-seam';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { useShowStore } from '../show/show-provider';

const INK = '#211d19';

export type OrderActions = ReturnType<typeof useOrderActions>;

/**
 * Everything that is done to the chosen slides of the running order.
 *
 * @param focusRef the slide the keys stand on
 * @param reveal brings a slide that was just made or changed into sight, in the order and in the viewer; must not change
 */
export function useOrderActions(focusRef: RefObject<SlideId | null>, reveal: (id: SlideId) => void) {
  const store = useShowStore();
  return useMemo(() => {
    const now = () => store.getState();
    const order = () => now().show.slides.map((slide) => slide.id);
    const chosenSlides = () => now().show.slides.filter((slide) => now().selection.has(slide.id));
    const chosen = (): readonly SlideId[] => chosenSlides().map((slide) => slide.id);
    const select = (ids: readonly SlideId[], anchor: SlideId | null) => {
      now().select(ids, anchor);
      focusRef.current = anchor;
      // After the rows have been laid out anew.
      if (anchor) setTimeout(() => reveal(anchor), 0);
    };
    const doOrSay = (edit: ShowEdit | null, otherwise: string) => {
      if (edit) now().edit(edit);
      else toast(otherwise);
      return edit !== null;
    };
    const moveTo = (ids: readonly SlideId[], afterId: SlideId | null) => {
      if (ids.length > 0) now().edit({ kind: 'move-slides', runs: [{ slideIds: ids, afterId }] });
    };
    const add = (slides: readonly Slide[], afterId: SlideId | null = chosen().at(-1) ?? order().at(-1) ?? null) => {
      now().edit({ kind: 'add-slides', runs: [{ afterId, slides }] });
      select(
        slides.map((slide) => slide.id),
        slides.at(-1)!.id,
      );
    };
    const join = (ids: readonly SlideId[], layout?: Layout) => {
      const { show } = now();
      const pictures = show.slides.filter((slide) => ids.includes(slide.id)).flatMap(picturesOf).length;
      if (
        doOrSay(
          joinSlides(show, ids, layout ?? layoutsFor(pictures)[0]!),
          pictures > MOST_IN_A_LAYOUT
            ? `A slide holds ${MOST_IN_A_LAYOUT} pictures at most.`
            : 'These cannot be put on one slide: it takes two or more with pictures, of which one may have words and one a narration, and no other layers.',
        )
      ) {
        const first = show.slides.find((slide) => ids.includes(slide.id))!.id;
        select([first], first);
      }
    };
    return {
      chosen,
      moveTo,
      add,
      join,
      moveBy(step: -1 | 1) {
        const ids = chosen();
        const all = order();
        const rest = all.filter((id) => !now().selection.has(id));
        if (ids.length === 0 || rest.length === 0) return;
        const before = all
          .slice(0, all.indexOf(step < 0 ? ids[0]! : ids.at(-1)!))
          .filter((id) => !now().selection.has(id)).length;
        const at = Math.min(rest.length, Math.max(0, before + step));
        moveTo(ids, at === 0 ? null : rest[at - 1]!);
      },
      moveToEnd(end: 'start' | 'end') {
        moveTo(
          chosen(),
          end === 'start'
            ? null
            : (order()
                .filter((id) => !now().selection.has(id))
                .at(-1) ?? null),
        );
      },
      changeLength(by: number) {
        const lengths = chosenSlides().map((slide) => ({
          slideId: slide.id,
          lengthMs: Math.max(SHORTEST_SLIDE_MS, slide.lengthMs + by),
        }));
        if (lengths.length > 0) now().edit({ kind: 'set-lengths', lengths }, 'lengths');
      },
      /** One length for all that is chosen. */
      setLength(lengthMs: number, ids: readonly SlideId[] = chosen()) {
        if (ids.length > 0) now().edit({ kind: 'set-lengths', lengths: ids.map((slideId) => ({ slideId, lengthMs })) });
      },
      /** Moves the seam at the end of the last chosen slide (or of another). */
      moveSeam(
        byMs: number,
        way: SeamWay,
        index = order().indexOf(chosen().at(-1) ?? ('' as SlideId)),
        joins?: string,
      ) {
        if (index >= 0)
          now().edit({ kind: 'set-lengths', lengths: movedSeam(now().show.slides, index, byMs, way) }, joins);
      },
      remove(name?: string) {
        const ids = chosen();
        if (ids.length === 0) return;
        const after = chosenAfterRemoval(order(), ids);
        now().edit(
          name
            ? { kind: 'together', name, edits: [{ kind: 'remove-slides', slideIds: ids }] }
            : { kind: 'remove-slides', slideIds: ids },
        );
        select(after ? [after] : [], after);
      },
      duplicate() {
        const slides = chosenSlides();
        if (slides.length > 0) add(slides.map((slide) => copyOfSlide(slide, () => nanoid(10))));
      },
      blank: () => add([blankSlide(now().show.defaultLengthMs, INK, () => nanoid(10))]),
      part() {
        const { show } = now();
        const slide = chosenSlides().find((entry) => picturesOf(entry).length > 1);
        doOrSay(
          slide ? partSlide(show, slide, () => nanoid(10)) : null,
          'Choose a slide with several pictures to give each a slide of its own.',
        );
      },
      /** Puts what is written in the files under the pictures of chosen slides that have no words. */
      writeCaptions() {
        const { facts } = now();
        const edits = chosenSlides().flatMap((slide) => {
          const layer = mainLayerOf(slide);
          const known = layer && facts.get(layer.assetId);
          const caption = known?.kind === 'picture' ? known.caption : undefined;
          return caption === undefined || wordsOf(slide)
            ? []
            : [
                {
                  kind: 'set-words' as const,
                  slideId: slide.id,
                  layerId: layerId(nanoid(10)),
                  words: { title: '', subtitle: caption, place: 'bottom' as const },
                },
              ];
        });
        doOrSay(
          edits.length === 0
            ? null
            : { kind: 'together', name: `write ${edits.length} ${edits.length === 1 ? 'caption' : 'captions'}`, edits },
          'No chosen slide without words has a picture whose file carries a caption.',
        );
      },
      /** A showing waits on the chosen slides, or on none of them any more. */
      turnWaits() {
        const slides = chosenSlides();
        const waits = slides.some((slide) => !slide.waits);
        doOrSay(
          slides.length === 0
            ? null
            : { kind: 'set-waits', slides: slides.map((slide) => ({ slideId: slide.id, waits })) },
          'Choose the slides on which a showing is to wait.',
        );
      },
      layIn(entries: readonly SheetEntry[], afterId: SlideId | null) {
        if (entries.length > 0)
          add(
            entries.map((entry) =>
              slideFromAsset(entry.assetId, entry.facts!, now().show.defaultLengthMs, () => nanoid(10)),
            ),
            afterId,
          );
      },
      putBeside(entries: readonly SheetEntry[], id: SlideId) {
        for (const entry of entries) {
          const slide = now().show.slides.find((candidate) => candidate.id === id);
          if (
            !slide ||
            !doOrSay(
              addToSlide(
                now().show,
                slide,
                layerFromAsset(entry.assetId, entry.facts!, () => nanoid(10)),
              ),
              `A slide holds ${MOST_IN_A_LAYOUT} pictures at most, and none can be put beside groups and shapes.`,
            )
          )
            return;
        }
        select([id], id);
      },
    };
  }, [store, focusRef, reveal]);
}
