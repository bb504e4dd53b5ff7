'use client';

import { ClipboardPaste, Copy, Trash2 } from 'lucide-react';
import { EASING_NAMES, type EasingName } from '../../core/keys/easing';
import {
  columnKeys,
  columnValues,
  isSmooth,
  withColumnSmooth,
  withKeyEasing,
  withKeyGone,
  withKeyTie,
  withValues,
} from '../../core/layers/column-keys';
import { channelsOf } from '../../core/layers/channel-paths';
import type { Column } from '../../core/layers/columns';
import type { Layer } from '../../core/show/layer';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { Pick } from '../kit/pick';
import { EasingSquare } from './easing-square';
import { keyChosen } from './key-chosen';
import { say, useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

const EASINGS: Readonly<Record<EasingName, string>> = {
  settle: 'settles',
  linear: 'goes evenly',
  'set-off': 'sets off slowly',
  arrive: 'arrives slowly',
  swing: 'swings past it',
  bounce: 'bounces',
  rush: 'rushes over',
  hold: 'holds, then jumps',
};

/** What is done with the chosen key: what it is tied to, how it goes on, copying its values, taking it away. */
export function KeyFoot({ layer, columns }: { layer: Layer; columns: readonly Column[] }) {
  const store = useWideStore();
  const { seenMs, put } = useOpenSlide();
  const chosen = useWide((state) => state.key);
  const copied = useWide((state) => state.copied);
  const column = columns.find(({ id }) => id === chosen?.columnId);
  const keys = column ? columnKeys(layer, column, seenMs) : [];
  const key = column ? keyChosen(keys, chosen, layer, column) : null;
  const paste = copied && (
    <Button
      className="h-7"
      data-part="paste-values"
      title="Gives this layer the copied values, at the red line"
      onClick={() => {
        const known = new Set(channelsOf(layer).map(({ path }) => path));
        const fitting = Object.fromEntries(Object.entries(copied).filter(([path]) => known.has(path)));
        if (Object.keys(fitting).length === 0) return say('This layer has none of the channels that were copied.');
        put('give it the copied values', withValues(layer, fitting, store.getState().offsetMs, seenMs));
      }}
    >
      <ClipboardPaste size={13} /> paste values
    </Button>
  );
  if (!key || !column)
    return (
      <div className="flex h-[208px] shrink-0 flex-wrap content-start items-start gap-2 border-t border-rule px-3 py-2.5 text-soft">
        {keys.length === 0 &&
          !paste &&
          'A channel’s name puts its first key; from then on changing it elsewhere makes another.'}
        {paste}
      </div>
    );
  const last = keys.indexOf(key) === keys.length - 1;
  return (
    <div
      className="flex h-[208px] shrink-0 flex-col gap-2 overflow-hidden border-t border-rule px-3 py-2.5"
      data-part="key-foot"
    >
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-soft">tied to</span>
        <Choice
          label="What the key is tied to"
          value={key.tied}
          onChange={(tied) => put('tie a key otherwise', withKeyTie(layer, key, tied, seenMs))}
          options={[
            { value: 'start', label: 'start' },
            { value: 'stretch', label: 'stretch' },
            { value: 'end', label: 'end' },
          ]}
        />
      </div>
      <div className="flex gap-2.5">
        {!last && (
          <EasingSquare
            easing={key.easing}
            onChange={(easing) =>
              put(
                'change how it goes on',
                withKeyEasing(layer, key, easing),
                `easing ${layer.id} ${column.id} ${key.ms}`,
              )
            }
          />
        )}
        <div className="flex min-w-0 flex-1 flex-col items-start gap-1.5">
          {!last && (
            <Pick
              label="How it goes on"
              value={typeof key.easing === 'string' ? key.easing : 'own'}
              groups={[
                {
                  name: null,
                  options: [
                    ...EASING_NAMES.map((value) => ({ value: value as string, label: EASINGS[value] })),
                    ...(typeof key.easing === 'string' ? [] : [{ value: 'own', label: 'a curve of its own' }]),
                  ],
                },
              ]}
              onChange={(name) => {
                if (name !== 'own') put('change how it goes on', withKeyEasing(layer, key, name as EasingName));
              }}
            />
          )}
          {(column.id === 'place' || column.id === 'camera') && keys.length > 2 && (
            <Choice
              label="The way through its places"
              value={isSmooth(layer, column) ? 'smooth' : 'straight'}
              onChange={(way) => put('change the way', withColumnSmooth(layer, column, way === 'smooth'))}
              options={[
                { value: 'straight', label: 'straight' },
                { value: 'smooth', label: 'smooth' },
              ]}
            />
          )}
          <div className="flex flex-wrap gap-1.5">
            <Button
              className="h-7"
              data-part="copy-values"
              onClick={() => store.getState().set({ copied: columnValues(layer, column, key.ms, seenMs) })}
            >
              <Copy size={13} /> copy values
            </Button>
            {paste}
            <Button
              className="h-7"
              data-part="remove-key"
              onClick={() => {
                put('remove a key', withKeyGone(layer, key));
                store.getState().set({ key: null });
              }}
            >
              <Trash2 size={13} /> remove key
            </Button>
          </div>
        </div>
      </div>
    </div>
  );
}
