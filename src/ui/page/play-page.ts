// The player of a page that plays a show by drawing it: no server, no library, nothing but what lies beside it.
import { PAGE_PARTS, type PageData } from '../../core/film/page-data';
import { widthFitting } from './frame-size';
import { createPageClock, type PageClock } from './page-clock';
import { openPageDrawing, type PageDrawing } from './page-drawing';
import { openParts } from './parts';

const STEP_MS = 5000;
/** The hands go away when nothing moves for so long. */
const REST_MS = 2500;
const part = <Kind extends HTMLElement>(id: string) => document.getElementById(id) as Kind;

void begin().catch((error: unknown) => {
  part('says').textContent = error instanceof Error ? error.message : String(error);
});

async function begin(): Promise<void> {
  const partOf = openParts();
  const said = await partOf(PAGE_PARTS.data);
  if (!said) throw new Error('A part of this page is missing. Unpack the whole folder, then open it again.');
  // Written by the program that made the page.
  const data = JSON.parse(new TextDecoder().decode(said.bytes)) as PageData;
  const drawing = await openPageDrawing(data, partOf);
  const sounding = data.hasSound ? await partOf(PAGE_PARTS.sound) : null;
  const sound = sounding ? new Audio(URL.createObjectURL(new Blob([sounding.bytes], { type: sounding.mime }))) : null;
  if (sound) document.body.append(sound);
  const clock = createPageClock({
    sound,
    lengthMs: data.toMs - data.fromMs,
    onRun: (momentMs, atMs) =>
      drawing.tell({ kind: 'play', momentMs: data.fromMs + momentMs, atMs, endMs: data.toMs - 1, speed: 1 }),
    onStill: (momentMs) => drawing.tell({ kind: 'still', momentMs: Math.min(data.toMs - 1, data.fromMs + momentMs) }),
    onChange: () => {
      fit();
      follow();
    },
    onRefused: refused,
  });
  const fit = showFrames(data, drawing, clock);
  const captions = offerCaptions(data);
  offerChapters(data, clock);
  offerSound(sound);
  const follow = offerHands(data, clock, captions);
  listenToKeys(data, clock, sound);
  part('bar').hidden = false;
  part('begin').hidden = false;
  part('begin').focus();
  clock.seek(0);
}

/** A canvas as large as the window takes, drawn for the very pixels it has. @returns fits it anew, since what stands is drawn larger than what a slow machine plays */
function showFrames({ show: { frame }, fromMs }: PageData, drawing: PageDrawing, clock: PageClock): () => void {
  const place = part('frame');
  const aspect = frame.widthPx / frame.heightPx;
  const canvas = document.createElement('canvas');
  canvas.setAttribute('aria-hidden', 'true');
  place.append(canvas);
  const offscreen = canvas.transferControlToOffscreen();
  drawing.tell({ kind: 'canvas', canvas: offscreen }, [offscreen]);
  let [slow, drawnPx] = [0, 0];
  const fit = () => {
    const width = Math.min(place.clientWidth, place.clientHeight * aspect);
    canvas.style.width = `${width}px`;
    canvas.style.height = `${width / aspect}px`;
    const widthPx = widthFitting(width * devicePixelRatio, clock.playing ? slow : 0);
    // The worker draws anew whatever size it is told.
    if (widthPx === drawnPx) return;
    drawnPx = widthPx;
    drawing.tell({ kind: 'size', widthPx, heightPx: 2 * Math.round(widthPx / aspect / 2) });
  };
  new ResizeObserver(fit).observe(place);
  let late: ReturnType<typeof setTimeout> | null = null;
  drawing.onMessage((message) => {
    if (message.kind === 'drawn') {
      if (late) clearTimeout(late);
      late = null;
      part('says').textContent = '';
      if (!clock.playing) canvas.dataset.moment = String(Math.round(message.momentMs - fromMs));
      document.body.className = 'drawn';
    }
    if (message.kind === 'waiting') late ??= setTimeout(() => (part('says').textContent = 'One moment …'), 350);
    // A machine that cannot keep up plays smaller frames: what moves evenly looks sharper than what jerks.
    if (message.kind === 'drew' && (1000 * message.frames) / message.overMs < 24 && slow < 3) {
      slow += 1;
      fit();
    }
  });
  return fit;
}

function offerHands(data: PageData, clock: PageClock, caption: (momentMs: number) => void): () => void {
  const lengthMs = data.toMs - data.fromMs;
  const slider = part<HTMLInputElement>('moment');
  slider.max = String(Math.round(lengthMs));
  const seen = () => {
    const momentMs = clock.momentMs();
    const whole = clock.playing ? momentMs : Math.round(momentMs);
    slider.value = String(Math.round(momentMs));
    slider.style.setProperty('--done', `${(100 * momentMs) / lengthMs}%`);
    slider.setAttribute('aria-valuetext', `${timeOf(whole)} of ${timeOf(lengthMs)}`);
    part('clock').textContent = `${timeOf(whole)} / ${timeOf(lengthMs)}`;
    const chapter = chapterAt(data, momentMs);
    part('now').textContent = chapter?.title ?? data.show.title;
    const select = part('chapters').querySelector('select')!;
    if (chapter && document.activeElement !== select) select.value = String(data.chapters.indexOf(chapter));
    caption(momentMs);
    if (clock.playing) requestAnimationFrame(seen);
  };
  const toggle = () => (clock.playing ? clock.pause() : clock.play());
  slider.oninput = () => clock.seek(Number(slider.value));
  part('play').onclick = toggle;
  part('begin').onclick = toggle;
  part('frame').onclick = toggle;
  part('whole').onclick = wholeScreen;
  if (!document.fullscreenEnabled) part('whole').hidden = true;
  rest(clock);
  return () => {
    const ended = !clock.playing && clock.momentMs() >= lengthMs - 2;
    part('play').textContent = clock.playing ? 'Pause' : ended ? 'Once more' : 'Play';
    if (clock.playing && document.activeElement === part('begin')) part('play').focus();
    part('begin').hidden = clock.playing || (clock.momentMs() > 0 && !ended);
    part('begin').textContent = ended ? 'Once more' : 'Play';
    seen();
  };
}

/** Browsers play sound only after a press. */
function refused(error: unknown): void {
  part('says').textContent =
    error instanceof Error && error.name !== 'NotAllowedError'
      ? 'The sound cannot be played by this browser.'
      : 'Press Play once more.';
}

/** In the whole screen, hands and pointer go away while nothing moves. */
function rest(clock: PageClock): void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const stir = () => {
    document.documentElement.classList.remove('still');
    if (timer) clearTimeout(timer);
    timer = setTimeout(() => {
      if (clock.playing) document.documentElement.classList.add('still');
    }, REST_MS);
  };
  for (const kind of ['pointermove', 'pointerdown', 'keydown']) addEventListener(kind, stir);
}

function offerChapters({ chapters, fromMs, toMs }: PageData, clock: PageClock): void {
  if (chapters.length === 0) return;
  const select = part('chapters').querySelector('select')!;
  chapters.forEach(({ title, startMs }, index) => {
    select.add(new Option(title, String(index)));
    const mark = document.createElement('i');
    mark.style.left = `${(100 * startMs) / (toMs - fromMs)}%`;
    part('marks').append(mark);
  });
  select.onchange = () => clock.seek(chapters[Number(select.value)]!.startMs);
  part('chapters').hidden = false;
}

/** @returns shows what is said at a moment */
function offerCaptions({ captions }: PageData): (momentMs: number) => void {
  const select = part('captions').querySelector('select')!;
  const line = part('caption');
  let said = '';
  if (captions.length > 0) {
    select.add(new Option('none', ''));
    const names = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' });
    captions.forEach(({ language }, index) => select.add(new Option(names.of(language) ?? language, String(index))));
    part('captions').hidden = false;
  }
  return (momentMs) => {
    const track = select.value === '' ? undefined : captions[Number(select.value)];
    const text = track?.captions.find(({ startMs, endMs }) => startMs <= momentMs && momentMs < endMs)?.text ?? '';
    if (text === said) return;
    said = text;
    line.textContent = text;
    line.hidden = text === '';
  };
}

function offerSound(sound: HTMLAudioElement | null): void {
  if (!sound) return;
  const slider = part('sound').querySelector('input')!;
  slider.oninput = () => {
    slider.style.setProperty('--done', `${slider.value}%`);
    sound.volume = Number(slider.value) / 100;
    sound.muted = false;
  };
  part('sound').hidden = false;
}

function listenToKeys(data: PageData, clock: PageClock, sound: HTMLAudioElement | null): void {
  const lengthMs = data.toMs - data.fromMs;
  const chapter = (step: number) => {
    const { chapters } = data;
    const at = chapters.findLastIndex(({ startMs }) => startMs <= clock.momentMs() - (step < 0 ? 1500 : 0));
    const to = step < 0 ? chapters[at] : chapters[at + 1];
    if (to) clock.seek(to.startMs);
  };
  const keys: Readonly<Record<string, () => void>> = {
    ' ': () => part('play').click(),
    ArrowLeft: () => clock.seek(clock.momentMs() - STEP_MS),
    ArrowRight: () => clock.seek(clock.momentMs() + STEP_MS),
    Home: () => clock.seek(0),
    End: () => clock.seek(lengthMs - 1),
    PageUp: () => chapter(-1),
    PageDown: () => chapter(1),
    f: wholeScreen,
    c: () => {
      const select = part('captions').querySelector('select')!;
      if (select.options.length > 0) select.selectedIndex = (select.selectedIndex + 1) % select.options.length;
      if (!clock.playing) clock.seek(clock.momentMs());
    },
    m: () => {
      if (sound) sound.muted = !sound.muted;
    },
  };
  window.addEventListener('keydown', (event) => {
    const { target } = event;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const press = keys[key];
    if (!press || event.ctrlKey || event.metaKey || event.altKey) return;
    // What has the focus has the keys it knows.
    if (target instanceof HTMLSelectElement || (target instanceof HTMLButtonElement && key === ' ')) return;
    if (target instanceof HTMLInputElement && target.id !== 'moment' && key.length > 1) return;
    event.preventDefault();
    press();
  });
}

function wholeScreen(): void {
  if (document.fullscreenElement) void document.exitFullscreen();
  else void document.documentElement.requestFullscreen();
}

function chapterAt({ chapters }: PageData, momentMs: number) {
  return chapters.findLast(({ startMs }) => startMs <= momentMs);
}

/** “1:05”, “1:02:05” */
function timeOf(ms: number): string {
  // The last moment of a show lies a millisecond before its end.
  const seconds = Math.floor((ms + 1) / 1000);
  const two = (value: number) => String(value).padStart(2, '0');
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}
