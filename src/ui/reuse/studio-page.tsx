'use client';

import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { StudioProfile } from '../../core/studio/studio-profile';
import { SHIPPED_PLUMAGE } from '../../core/plumage/shipped-plumage';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { createUploadQueue } from '../gather/upload-queue';
import { Button } from '../kit/button';
import { Pick } from '../kit/pick';
import { Head, StudioFrame } from '../people/studio-bar';
import { callServer } from '../show/call-server';
import { pictureUrl } from '../show/file-url';
import { readsBetterOn } from '../../core/mounts/logo-ground';
import { PLAIN_LOOK } from '../../core/mounts/plain-look';
import { KeptMounts } from './kept-mounts';
import { LookFields } from './look-fields';
import { studioStore, useStudio } from './studio-store';
import { WatermarkFields } from './watermark-fields';
import { sayFault } from '../show/say-fault';

const FIELD = 'h-8 w-full rounded-md border border-rule bg-field px-2';
const SAVES_AFTER_MS = 700;
const NONE = 'none';

/** What the studio says of itself, its logo, what new shows have by themselves, its mounts and plumage. */
export function StudioPage() {
  const { profile, loaded } = useStudio();
  return (
    <StudioFrame here="/studio" part="studio" loaded={loaded}>
      <main className="mx-auto grid w-full max-w-[1100px] grid-cols-2 gap-x-12 gap-y-10 px-6 py-8">
        {loaded ? <Profile key="profile" first={profile} /> : <p className="text-soft">The studio is being opened …</p>}
        <KeptMounts />
      </main>
    </StudioFrame>
  );
}

function Profile({ first }: { first: StudioProfile }) {
  const { shelf, entries } = useStudio();
  const [profile, setProfile] = useState(first);
  const [saved, setSaved] = useState<'saved' | 'saving' | 'refused'>('saved');
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const change = (next: Partial<StudioProfile>) => {
    const all = { ...profile, ...next };
    setProfile(all);
    setSaved('saving');
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => void save(all), SAVES_AFTER_MS);
  };
  const save = async (all: StudioProfile) => {
    // A link that is not written out yet waits until it is.
    const links = all.links.filter(({ name, to }) => name.trim() !== '' && /^(https?:\/\/|mailto:)[^\s<>"]+$/.test(to));
    try {
      await studioStore.getState().setProfile({ ...all, links });
      setSaved('saved');
    } catch (error) {
      setSaved('refused');
      sayFault(error);
    }
  };
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
    },
    [],
  );
  const logo = profile.logo ? (entries.find(({ assetId }) => assetId === profile.logo) ?? null) : null;
  const { ink, paper } = profile.palette ?? PLAIN_LOOK.palette;
  const bringLogo = async (file: File) => {
    if (!shelf) return;
    const before = new Set((await sheetOf(shelf)).map(({ id }) => id));
    const queue = createUploadQueue({ show: shelf }, () => {});
    queue.add([file]);
    for (let tries = 0; tries < 120; tries += 1) {
      await new Promise((resolve) => setTimeout(resolve, 500));
      const now = await sheetOf(shelf);
      const mine =
        now.find(({ id, fileName }) => !before.has(id) && fileName === file.name) ??
        (tries > 6 ? now.find(({ fileName }) => fileName === file.name) : undefined);
      if (mine?.state === 'refused') return void toast(mine.problem ?? 'That file cannot be used.');
      if (mine?.state === 'ready') {
        if (mine.facts?.kind !== 'picture') return void toast('A logo is a picture or a drawing: PNG, SVG, JPEG.');
        await studioStore.getState().load();
        return change({ logo: mine.assetId });
      }
    }
    toast('The file did not arrive. Give it again.');
  };
  return (
    <>
      <section className="flex flex-col gap-4">
        <Head title="Who you are">
          <span role="status" className="text-soft" data-part="studio-saved">
            {saved === 'saved' ? 'saved' : saved === 'saving' ? 'saving …' : 'not saved'}
          </span>
        </Head>
        <label className="grid gap-1">
          <span className="text-soft">name</span>
          <input
            className={FIELD}
            maxLength={200}
            value={profile.name}
            onChange={(event) => change({ name: event.target.value })}
          />
        </label>
        <label className="grid gap-1">
          <span className="text-soft">how to reach you</span>
          <input
            className={FIELD}
            maxLength={300}
            value={profile.contact}
            onChange={(event) => change({ contact: event.target.value })}
          />
        </label>
        <div className="grid gap-1">
          <span className="text-soft">links</span>
          {profile.links.map((link, index) => (
            <span key={index} className="flex gap-2">
              <input
                aria-label={`Name of link ${index + 1}`}
                className={`${FIELD} w-40`}
                value={link.name}
                onChange={(event) =>
                  change({
                    links: profile.links.map((one, at) => (at === index ? { ...one, name: event.target.value } : one)),
                  })
                }
              />
              <input
                aria-label={`Address of link ${index + 1}`}
                placeholder="https://"
                className={`${FIELD} flex-1`}
                value={link.to}
                onChange={(event) =>
                  change({
                    links: profile.links.map((one, at) => (at === index ? { ...one, to: event.target.value } : one)),
                  })
                }
              />
              <Button
                look="quiet"
                square
                aria-label={`Remove link ${index + 1}`}
                onClick={() => change({ links: profile.links.filter((_, at) => at !== index) })}
              >
                <Trash2 size={14} />
              </Button>
            </span>
          ))}
          <span>
            <Button
              className="h-7"
              disabled={profile.links.length >= 20}
              onClick={() => change({ links: [...profile.links, { name: '', to: '' }] })}
            >
              <Plus size={13} /> Link
            </Button>
          </span>
        </div>
      </section>
      <section className="flex flex-col gap-4">
        <Head title="Your logo" />
        <div className="flex items-center gap-4">
          <div
            className="grid size-28 place-items-center border border-rule bg-field"
            // As it will lie in films: on ink where it would not read on paper.
            style={logo && readsBetterOn(ink, paper, logo.facts ?? undefined) ? { background: ink } : undefined}
            data-part="logo"
          >
            {logo && shelf ? (
              // eslint-disable-next-line @next/next/no-img-element
              <img src={pictureUrl(shelf, logo.assetId, 320)} alt="The logo" className="max-h-24 max-w-24" />
            ) : (
              <span className="text-soft">none yet</span>
            )}
          </div>
          <div className="flex flex-col items-start gap-2">
            <label className="inline-flex h-8 cursor-pointer items-center rounded-md border border-rule bg-card px-3 focus-within:outline-2 hover:border-soft">
              {logo ? 'Another one' : 'Bring one in'}
              <input
                type="file"
                accept="image/*,.svg"
                className="sr-only"
                data-part="logo-picker"
                onChange={(event) => {
                  const [file] = [...(event.target.files ?? [])];
                  event.target.value = '';
                  if (file) void bringLogo(file).catch(() => toast('The server cannot be reached.'));
                }}
              />
            </label>
            <span className="text-soft">A drawing (SVG) or a picture with a clear ground stands best.</span>
            {logo && (
              <Button className="h-7" onClick={() => change({ logo: null })}>
                Without a logo
              </Button>
            )}
          </div>
        </div>
        <div>
          <span className="text-soft">as a watermark</span>
          <WatermarkFields watermark={profile.watermark} onChange={(watermark) => change({ watermark })} />
        </div>
      </section>
      <section className="flex flex-col gap-3">
        <Head title="Your letters and colours" />
        <p className="text-soft">Mounts are dressed in them in shows that wear no plumage.</p>
        <LookFields
          look={{ letters: profile.letters ?? PLAIN_LOOK.letters, palette: profile.palette ?? PLAIN_LOOK.palette }}
          onChange={change}
        />
      </section>
      <section className="flex flex-col gap-3">
        <Head title="New shows have by themselves" />
        <label className="flex items-center gap-2">
          <span className="w-24 text-soft">plumage</span>
          <Pick
            label="Plumage of new shows"
            value={profile.newShows.plumage ?? NONE}
            onChange={(plumage) =>
              change({ newShows: { ...profile.newShows, plumage: plumage === NONE ? null : plumage } })
            }
            groups={[
              { name: null, options: [{ value: NONE, label: 'none' }] },
              ...(profile.plumage.length > 0
                ? [{ name: 'Your own', options: profile.plumage.map(({ id, name }) => ({ value: id, label: name })) }]
                : []),
              { name: 'Shipped', options: SHIPPED_PLUMAGE.map(({ id, name }) => ({ value: id, label: name })) },
            ]}
          />
        </label>
        {(
          [
            ['logoFirst', 'your logo to begin with'],
            ['logoLast', 'your logo at the end'],
            ['watermark', 'the watermark'],
          ] as const
        ).map(([name, label]) => (
          <label key={name} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={profile.newShows[name]}
              disabled={!profile.logo}
              onChange={(event) => change({ newShows: { ...profile.newShows, [name]: event.target.checked } })}
            />
            {label}
          </label>
        ))}
        <p className="text-soft">
          The logo stands at both ends of shows that are made for a purpose; watermark and plumage go with every new
          show. Nothing of ours is in your films.
        </p>
        <div className="mt-5">
          <Head title="Faces in your pictures" />
        </div>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            data-part="seek-faces"
            checked={profile.faces === undefined}
            onChange={(event) => change({ faces: event.target.checked ? undefined : 'not-sought' })}
          />
          look for them, so that no move cuts one
        </label>
        <p className="text-soft">
          It is done on this server and nobody is recognised. Without it pictures are framed by people’s shapes and by
          what stands out; what was found about faces is deleted, also in shows there are, and found again when you want
          it.
        </p>
        {profile.plumage.length > 0 && (
          <ul className="mt-2">
            {profile.plumage.map((one) => (
              <li key={one.id} className="flex items-center gap-2 border-t border-rule py-1.5">
                {one.name}
                <Button
                  look="quiet"
                  square
                  className="ml-auto"
                  aria-label={`Remove the plumage ${one.name}`}
                  onClick={() => {
                    const before = profile.plumage;
                    change({ plumage: before.filter(({ id }) => id !== one.id) });
                    toast(`“${one.name}” is removed.`, {
                      action: { label: 'Undo', onClick: () => change({ plumage: before }) },
                    });
                  }}
                >
                  <Trash2 size={14} />
                </Button>
              </li>
            ))}
          </ul>
        )}
      </section>
    </>
  );
}

async function sheetOf(shelf: string): Promise<readonly SheetEntry[]> {
  return (await callServer<{ entries: readonly SheetEntry[] }>('GET', `/api/v1/shows/${shelf}/sheet`)).entries;
}
