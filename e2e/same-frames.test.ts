import { createServer, type Server } from 'node:http';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import * as esbuild from 'esbuild';
import type { Browser } from 'puppeteer-core';
import { planFrame, prepareShow } from '../src/core/frame/plan-frame';
import type { AssetFacts } from '../src/core/show/asset-facts';
import { showId, slideId, type AssetId } from '../src/core/show/ids';
import { emptyShow, type Show, type Slide } from '../src/core/show/show';
import type { TransitionOverTime } from '../src/core/show/transition';
import { createPainter } from '../src/drawing/paint/paint-frame';
import type { PicturePart, PictureReader } from '../src/drawing/picture-reader';
import { i420Of } from '../src/drawing/planes/surface';
import { lookAtFile } from '../src/server/assets/look-at-file';
import { hashOfFile } from '../src/server/blobs/content-hash';
import { createFileReader } from '../src/server/assets/file-reader';
import { storeFor } from '../src/server/films/draw-segment';
import { openNodeDrawing, type NodeDrawing } from '../src/server/films/node-drawing';
import { ask, openApp, openBrowser, openPage, type App } from './app';

const FRAME = { widthPx: 640, heightPx: 360 };

let app: App;
let browser: Browser;
let drawing: NodeDrawing;
let show: Show;
let facts: Map<AssetId, AssetFacts>;
let moments: number[];
let originals: ReturnType<typeof createFileReader>;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  drawing = await openNodeDrawing();
  const answer = async (url: string) => (await ask(app.address + url)).json() as Promise<Record<string, unknown>>;
  show = (await answer('/api/v1/shows/lantern-regatta')).show as Show;
  const entries = (await answer('/api/v1/shows/lantern-regatta/sheet')).entries as {
    assetId: AssetId;
    facts: AssetFacts | null;
  }[];
  facts = new Map(entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : [])));
  originals = createFileReader((id) => path.join(app.dataFolder, 'blobs/originals', id.slice(0, 2), id), facts);
  const { spans } = prepareShow(show, facts);
  const clip = spans[show.slides.findIndex((slide) => slide.layers[0]?.kind === 'clip')]!;
  // Words, a dissolve with words, an upright picture on its blur, a dissolve into it, the small one, the clip and its dissolve, the emblem at the end.
  moments = [
    3000,
    11_400,
    spans[2]!.startMs + 3000,
    spans[2]!.startMs + 500,
    spans[8]!.startMs + 2500,
    90_000,
    clip.startMs + 200,
    clip.startMs + 4033,
    140_000,
    spans.at(-1)!.startMs + 2000,
  ];
});
afterAll(async () => {
  originals.close();
  await browser.close();
  await app.close();
});

/** What is drawn, and from which files. */
interface Given {
  readonly show: Show;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly moments: readonly number[];
}

async function drawnHere(reader: PictureReader, { show, facts, moments }: Given): Promise<Uint8Array[]> {
  const store = storeFor(drawing, reader, 1 << 28);
  const painter = createPainter(drawing.kernels, FRAME.widthPx, FRAME.heightPx);
  const prepared = prepareShow(show, facts);
  const frames: Uint8Array[] = [];
  for (const momentMs of moments) {
    const plan = planFrame(prepared, momentMs, FRAME)!;
    await store.prepare(plan);
    frames.push(i420Of(drawing.kernels, painter.paint(plan, store)));
  }
  expect([...store.problems()]).toEqual([]);
  store.close();
  return frames;
}

describe('the viewer and the film', () => {
  /** Draws in Chromium from the pixels handed to it. */
  async function drawnThere(given: Given, reader: PictureReader): Promise<Uint8Array[]> {
    const drawn: Uint8Array[] = [];
    const bundle = (
      await esbuild.build({
        entryPoints: ['e2e/same-frames-page.ts'],
        bundle: true,
        write: false,
        format: 'esm',
        platform: 'browser',
        target: 'es2023',
        external: ['module'],
      })
    ).outputFiles[0]!.text;
    const server = await serve(bundle, drawn, given, reader);
    const page = await openPage(browser);
    await page.goto(`http://127.0.0.1:${(server.address() as { port: number }).port}/`);
    await page.waitForFunction(() => document.title === 'done', { timeout: 240_000 });
    server.close();
    expect(page.faults).toEqual([]);
    await page.close();
    return drawn;
  }

  it('draw byte-identical frames from the same decoded pictures, words within two levels', async () => {
    const given = { show, facts, moments };
    const drawn = await drawnThere(given, originals);
    const here = await drawnHere(originals, given);
    here.forEach((frame, index) => {
      const hasWords = planFrame(prepareShow(show, facts), moments[index]!, FRAME)!;
      const words = [hasWords.slide, hasWords.incoming?.slide].some((slide) =>
        slide?.layers.some((layer) => layer.content.kind === 'words'),
      );
      const { beyondTwo, different } = compare(frame, drawn[index]!);
      if (words) expect(beyondTwo / frame.length).toBeLessThan(0.001);
      else expect([index, different]).toEqual([index, 0]);
    });
  });

  it('agree on every kind of layer, mask, edge, light, word and transition that the page on the format shows', async () => {
    const page = await readFile('docs/show-format.md', 'utf8');
    const slides = [...page.matchAll(/```json slide\n([\s\S]*?)```/g)].map(([, text]) => text!);
    const folder = await mkdtemp(path.join(tmpdir(), 'tanager-same-'));
    await writeFile(
      path.join(folder, 'mark.svg'),
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><circle cx="20" cy="20" r="18" fill="#c98a0c"/></svg>',
    );
    const files = new Map<string, string>([
      ['boats', 'demo/files/PE_0412.jpg'],
      ['band', 'demo/files/PE_0426.jpg'],
      ['clip', 'demo/files/PE_0489-boats.mp4'],
      ['drawing', path.join(folder, 'mark.svg')],
    ]);
    const known = new Map<AssetId, AssetFacts>();
    const fileOf = new Map<AssetId, string>();
    let text = slides.join(',');
    for (const [name, file] of files) {
      const id = await hashOfFile(file);
      fileOf.set(id, file);
      known.set(id, (await lookAtFile(file)).facts);
      text = text.replaceAll(`"assetId": "${name}"`, `"assetId": "${id}"`);
    }
    const timed = { lengthMs: 1000 };
    const transitions: TransitionOverTime[] = [
      { kind: 'page-turn', ...timed },
      { kind: 'cube-turn', ...timed },
      { kind: 'pattern', ...timed, pattern: 'clouds' },
      { kind: 'zoom-blur', ...timed },
      { kind: 'blur-through', ...timed },
      { kind: 'burn', ...timed },
      { kind: 'mosaic', ...timed },
    ];
    const parsed = (JSON.parse(`[${text}]`) as Slide[]).map((slide, index) => ({
      ...slide,
      transition: transitions[index % transitions.length]!,
    }));
    // Twice over, so that every transition has its turn.
    const all = [
      ...parsed,
      ...parsed.map((slide, index) => ({
        ...slide,
        id: slideId(`again${index}`),
        transition: transitions[(index + parsed.length) % transitions.length]!,
      })),
    ];
    const own: Show = { ...emptyShow(showId('format'), 'Format'), slides: all };
    const { spans } = prepareShow(own, known);
    const given = {
      show: own,
      facts: known,
      moments: [
        ...spans.slice(0, parsed.length).flatMap((span) => [span.startMs + 1200, span.startMs + 3100]),
        ...spans.slice(1).map((span) => span.startMs + 430),
      ],
    };
    const reader = createFileReader((id) => fileOf.get(id)!, facts);
    const [there, here] = [await drawnThere(given, reader), await drawnHere(reader, given)];
    reader.close();
    // Outlines are filled by each side's own canvas: a level here and there at their edges, never a picture's worth.
    here.forEach((frame, index) => {
      const { mean, beyondTwo } = compare(frame, there[index]!);
      expect([index, mean < 0.05, beyondTwo / frame.length < 0.002]).toEqual([index, true, true]);
    });
    await rm(folder, { recursive: true });
  });

  it('agree within three levels when each decodes the files itself', async () => {
    const crops = [
      { x: 0.5, y: 0.45, width: 0.7, height: 0.7, turnDegrees: 6 },
      { x: 0.4, y: 0.5, width: 0.5, height: 0.8, turnDegrees: 0 },
    ];
    // Two of the pictures cropped, one of them straightened too.
    const cropped: Show = {
      ...show,
      slides: show.slides.map((slide, index) => ({
        ...slide,
        layers: slide.layers.map((layer) =>
          layer.kind === 'picture' && (index === 2 || index === 8)
            ? { ...layer, crop: crops[index === 2 ? 0 : 1]! }
            : layer,
        ),
      })),
    };
    const given: Given = { show: cropped, facts, moments };
    const page = await openPage(browser);
    await page.goto(app.address);
    const there = await page.evaluate(
      async (given: {
        show: Show;
        facts: [AssetId, AssetFacts][];
        moments: readonly number[];
        widthPx: number;
        heightPx: number;
      }) => {
        const worker = new Worker('/drawing/worker.js?show=lantern-regatta', { type: 'module' });
        const next = (kind: string) =>
          new Promise<{ i420: Uint8Array }>((resolve) => {
            const hear = (event: MessageEvent) => {
              if (event.data.kind === kind) {
                worker.removeEventListener('message', hear);
                resolve(event.data);
              }
            };
            worker.addEventListener('message', hear);
          });
        await next('ready');
        worker.postMessage({ kind: 'show', show: given.show, facts: new Map(given.facts) });
        const frames: string[] = [];
        for (const momentMs of given.moments) {
          worker.postMessage({
            kind: 'frame-bytes',
            id: 1,
            momentMs,
            widthPx: given.widthPx,
            heightPx: given.heightPx,
          });
          const { i420 } = await next('frame-bytes');
          let text = '';
          for (let at = 0; at < i420.length; at += 8192) text += String.fromCharCode(...i420.subarray(at, at + 8192));
          frames.push(btoa(text));
        }
        worker.terminate();
        return frames;
      },
      { show: cropped, facts: [...facts], moments, ...FRAME },
    );
    const here = await drawnHere(originals, given);
    const means = here.map((frame, index) => compare(frame, Buffer.from(there[index]!, 'base64')).mean);
    for (const mean of means) expect(mean).toBeLessThan(3);
    await page.close();
  });
});

function compare(a: Uint8Array, b: Uint8Array): { mean: number; different: number; beyondTwo: number } {
  expect(b.length).toBe(a.length);
  let [sum, different, beyondTwo] = [0, 0, 0];
  for (let at = 0; at < a.length; at += 1) {
    const by = Math.abs(a[at]! - b[at]!);
    sum += by;
    if (by > 0) different += 1;
    if (by > 2) beyondTwo += 1;
  }
  return { mean: sum / a.length, different, beyondTwo };
}

/** Serves the page its code, the show, and every picture as pixels decoded here; takes back what it drew. */
function serve(
  bundle: string,
  drawn: Uint8Array[],
  { show, facts, moments }: Given,
  reader: PictureReader,
): Promise<Server> {
  const server = createServer((request, response) => {
    const [, first, ...rest] = request.url!.split('/');
    const send = (type: string, body: string | Uint8Array) => {
      response.setHeader('content-type', type);
      response.end(body);
    };
    void (async () => {
      if (first === '')
        return send('text/html', '<!doctype html><title>drawing</title><script type="module" src="/page.js"></script>');
      if (first === 'page.js') return send('text/javascript', bundle);
      if (first === 'given.json')
        return send('application/json', JSON.stringify({ show, facts: [...facts], moments, frame: FRAME }));
      if (first === 'kernels.wasm' || first === 'harfbuzz.wasm')
        return send('application/wasm', await readFile(`public/drawing/${first}`));
      if (first === 'fonts' && rest[0] === 'index.json')
        return send('application/json', await readFile('public/fonts/index.json'));
      if (first === 'fonts')
        return send('font/ttf', await readFile(path.join('public/fonts', path.basename(rest[0]!))));
      if (first === 'drawn') {
        const parts: Buffer[] = [];
        for await (const part of request) parts.push(part as Buffer);
        drawn[Number(rest[0])] = Buffer.concat(parts);
        return response.end();
      }
      if (first === 'pixels') {
        const [id, clipFrame, width, height, kind, part] = rest as [AssetId, string, string, string, string, string?];
        if (kind === 'clip') {
          const frame = await reader.readClipFrame(id, Number(clipFrame), Number(width), Number(height));
          return send('application/octet-stream', 'rgba' in frame ? (frame.rgba as Uint8Array) : frame.i420);
        }
        return send(
          'application/octet-stream',
          (
            await reader.readPicture(
              id,
              Number(width),
              Number(height),
              part ? (JSON.parse(decodeURIComponent(part)) as PicturePart) : undefined,
            )
          ).rgba as Uint8Array,
        );
      }
      response.statusCode = 404;
      response.end();
    })();
  });
  return new Promise((resolve) => {
    server.listen(0, '127.0.0.1', () => resolve(server));
  });
}
