import { describe, expect, it } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { asset, counter, FACTS, showOf, withTitle } from '../core/mounts/mounts.testing';
import { faultOfShow } from '../core/show/faults';
import { everyLayer } from '../core/show/layer';
import type { Show } from '../core/show/show';
import { readied, withLook, type Dressing } from './dress-made';
import { UsageError } from './usage-error';

const NOTHING: Dressing = {
  start: undefined,
  plumage: undefined,
  opener: undefined,
  closer: undefined,
  logo: undefined,
  credits: undefined,
};
const FILES = Array.from({ length: 8 }, (_, n) => ({
  assetId: asset(n),
  fileName: `${n}.jpg`,
  facts: FACTS.get(asset(n))!,
}));
const link = (file: string) => Promise.resolve(file);

async function made(dressing: Partial<Dressing>, title = 'Midsummer'): Promise<Show> {
  const folder = await mkdtemp(path.join(tmpdir(), 'tanager-dress-'));
  try {
    const look = await readied({ ...NOTHING, ...dressing }, folder, link);
    const plain = showOf(8);
    const titled = title ? { ...plain, slides: [withTitle(plain.slides[0]!, title), ...plain.slides.slice(1)] } : plain;
    const { show } = withLook({ ...titled, cues: [] }, FILES, title, look, counter('n'));
    expect(faultOfShow(show)).toBeNull();
    return show;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
const says = (show: Show, text: string) =>
  show.slides.some((slide) =>
    [...everyLayer(slide.layers)].some(
      (layer) => layer.kind === 'words' && `${layer.title} ${layer.subtitle}`.includes(text),
    ),
  );
const mountsOf = (show: Show) => show.slides.flatMap(({ mounted }) => (mounted ? [mounted.mount.id] : []));

describe('how a film made on the command line looks', () => {
  it('is plain when nothing is said', async () => {
    expect(mountsOf(await made({}))).toEqual([]);
  });
  it('is dressed, opened with the title and closed as was said, by id or by name', async () => {
    const show = await made({ plumage: 'Kingfisher', closer: 'Until next time' });
    expect([show.plumage?.is.id, mountsOf(show)]).toEqual(['kingfisher', ['three-strips', 'until-next']]);
    expect(says(show, 'Midsummer')).toBe(true);
  });
  it('takes an opener and a closer without a plumage, and credits of one’s own with lines and columns', async () => {
    const show = await made({ opener: 'archway', closer: 'lamp-out', credits: 'Camera\\tMila\\nTea\\tOskar' });
    expect(mountsOf(show)).toEqual(['archway', 'lamp-out', 'roll-call']);
    expect(says(show, 'Camera\tMila\nTea\tOskar')).toBe(true);
  });
  it('is begun for a purpose: parted, dressed, opened and closed', async () => {
    const show = await made({ start: 'wedding' });
    expect([show.plumage?.is.id, mountsOf(show)[0], show.title]).toEqual(['swan', 'archway', 'Midsummer']);
    expect(show.slides.filter(({ chapter }) => chapter).length).toBeGreaterThan(1);
  });
  it.each([
    ['--plumage', { plumage: 'peacock' }],
    ['--start', { start: 'funeral' }],
    ['--opener', { opener: 'door' }],
  ])('%s names what it knows when it is given something else', async (option, dressing) => {
    await expect(made(dressing)).rejects.toThrow(UsageError);
    await expect(made(dressing)).rejects.toThrow(`${option} knows`);
  });
});
