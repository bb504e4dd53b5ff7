'use client';

import { nanoid } from 'nanoid';
import { toast } from 'sonner';
import { slidesOfRun } from '../../core/mounts/relay';
import { isChangedByHand } from '../../core/mounts/sum';
import { takeOffEdit } from '../../core/mounts/take-off';
import { layerIn } from '../../core/show/pile';
import type { Slide } from '../../core/show/show';
import { textOf } from '../../core/show/words-of-slide';
import { runCommand } from '../commands/use-commands';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';

/** What a mount brought, in one form: its words, when they come, how long its slides last; and the way back. */
export function MountTab({ slide }: { slide: Slide }) {
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const select = useShow((state) => state.select);
  const { mounted } = slide;
  if (!mounted)
    return (
      <div className="flex flex-col items-start gap-3">
        <p className="max-w-md text-soft">
          A mount is a slide that is ready made: it takes your pictures into its windows. Lay one on the chosen slides,
          or keep what you made yourself as one.
        </p>
        <span className="flex gap-2">
          <Button look="main" onClick={() => runCommand('mounts')} data-part="open-mounts">
            Lay a mount
          </Button>
          <Button onClick={() => runCommand('keep-mount')}>Keep as a mount</Button>
        </span>
      </div>
    );
  const run = slidesOfRun(show, mounted.run);
  const takeOff = () => {
    const off = takeOffEdit(show, [slide.id], () => nanoid(10));
    if (!off || !edit(off)) return;
    const back = mounted.before[0]?.id ?? null;
    select(back ? [back] : [], back);
    toast(`The mount “${mounted.mount.name}” is off; what it lay on stands there again.`);
  };
  return (
    <div className="flex flex-col gap-4" data-part="mount-tab">
      <div className="flex flex-wrap items-center gap-2">
        <b className="text-base">{mounted.mount.name}</b>
        <span className="text-soft">
          {mounted.fit}
          {mounted.role && `, laid by the plumage as its ${ROLE[mounted.role]}`}
          {run.some(isChangedByHand) && ', changed by hand'}
        </span>
        <span className="ml-auto flex gap-2">
          <Button className="h-7" onClick={() => runCommand('mounts')}>
            Another mount
          </Button>
          <Button className="h-7" onClick={takeOff} data-part="take-mount-off">
            Take it off
          </Button>
        </span>
      </div>
      {run.map((one, index) => (
        <fieldset key={one.id} className="flex flex-col gap-3">
          {run.length > 1 && <legend className="mb-1 text-soft">slide {index + 1} of the run</legend>}
          {(one.mounted?.words ?? []).map(({ layerId, part, name }) => {
            const layer = layerIn(one.layers, layerId);
            if (layer?.kind !== 'words')
              return (
                <p key={`${layerId} ${part}`} className="text-soft">
                  {name}: these words were removed.
                </p>
              );
            return (
              <label key={`${layerId} ${part}`} className="grid grid-cols-[130px_minmax(0,1fr)] items-start gap-3">
                <span className="pt-1 text-soft">{name}</span>
                <textarea
                  rows={1}
                  value={layer[part]}
                  onChange={(event) =>
                    edit(
                      {
                        kind: 'set-words',
                        slideId: one.id,
                        layerId,
                        words: { ...textOf(layer), [part]: event.target.value },
                        by: 'hand',
                      },
                      `mount words ${layerId} ${part}`,
                    )
                  }
                  className="min-h-8 resize-none rounded-md border border-rule bg-field px-2 py-1 [field-sizing:content]"
                />
              </label>
            );
          })}
          <div className="flex flex-wrap items-center gap-4">
            <NumberField
              label={run.length > 1 ? `Length of slide ${index + 1} of the run in seconds` : 'Length in seconds'}
              value={one.lengthMs / 1000}
              min={0.2}
              max={86_400}
              step={0.5}
              unit="s long"
              onCommit={(seconds) =>
                edit({
                  kind: 'set-lengths',
                  lengths: [{ slideId: one.id, lengthMs: Math.round(seconds * 1000), by: 'hand' }],
                })
              }
            />
            <WordsTiming slide={one} />
          </div>
        </fieldset>
      ))}
    </div>
  );
}

const ROLE = { opener: 'opener', chapter: 'chapter card', closer: 'closer', several: 'slide of several' } as const;

/** When the first of its words come; the others keep their distance to them. */
function WordsTiming({ slide }: { slide: Slide }) {
  const edit = useShow((state) => state.edit);
  const layers = [...new Set((slide.mounted?.words ?? []).map(({ layerId }) => layerId))].flatMap((id) => {
    const layer = layerIn(slide.layers, id);
    return layer?.kind === 'words' && layer.come && layer.come.entrance.way !== 'none' ? [layer] : [];
  });
  const first = Math.min(...layers.map(({ come }) => come!.entrance.atMs));
  if (layers.length === 0) return null;
  return (
    <NumberField
      label="When the words come, in seconds"
      value={first / 1000}
      min={0}
      max={3600}
      step={0.1}
      digits={1}
      unit="s until the words come"
      onCommit={(seconds) =>
        edit({
          kind: 'together',
          name: 'change when words come',
          edits: layers.map((layer) => ({
            kind: 'set-words' as const,
            slideId: slide.id,
            layerId: layer.id,
            words: {
              ...textOf(layer),
              come: {
                ...layer.come!,
                entrance: {
                  ...layer.come!.entrance,
                  atMs: Math.max(0, layer.come!.entrance.atMs - first + Math.round(seconds * 1000)),
                },
              },
            },
          })),
        })
      }
    />
  );
}
