import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { applyEdit } from '../show/edit';
import { assetId, cueId, showId, slideId } from '../show/ids';
import { voiceHere } from '../show/placed-sound';
import { emptyShow, type Show, type Slide } from '../show/show';
import { phrasesOf } from '../sound/voice/phrases';
import { fan, rms, spoken, SPOKEN_RATE } from '../sound/voice/spoken.testing';
import { levelMeter } from '../sound/voice/voice-levels';
import { sentenceTimes } from './align';
import { captionsBrought } from './bring-captions';
import { asSrt, asVtt, readCaptions } from './caption-files';
import { CAPTION_LIMITS, faultOfCaption, inCaptions, inLines } from './caption-lines';
import { createPrompter } from './prompter';
import { sentencesOf } from './sentences';
import { captionLanguages, captionsOfShow, timedCaptions } from './show-captions';

const SCRIPT = `We set out at dusk, when the harbour was already quiet. Every boat carried lanterns made by the children of the lower school.
Dr. Ames played the horn. It was 9 o’clock! Nobody had expected so many people to come, and some of them had walked for an hour.`;
const SENTENCES = sentencesOf(SCRIPT);

const levelsOf = (samples: Float32Array) => {
  const meter = levelMeter(SPOKEN_RATE);
  meter.push(samples);
  return meter.finish().rmsDb;
};
const recording = (more: Partial<Parameters<typeof spoken>[0]> = {}) =>
  spoken({ texts: SENTENCES, pausesMs: [500, 420, 700, 380], ...more });

describe('a script', () => {
  it('is cut into sentences at dots that end one, and at line breaks', () => {
    expect(SENTENCES).toEqual([
      'We set out at dusk, when the harbour was already quiet.',
      'Every boat carried lanterns made by the children of the lower school.',
      'Dr. Ames played the horn.',
      'It was 9 o’clock!',
      'Nobody had expected so many people to come, and some of them had walked for an hour.',
    ]);
    expect(sentencesOf('\n — \n')).toEqual([]);
  });
});

describe('sentences in a recording', () => {
  it.each([
    ['read calmly', {}],
    ['read fast', { msALetter: 52, seed: 9 }],
    ['read slowly, with long pauses', { msALetter: 90, pausesMs: [900, 300], seed: 4 }],
  ])('are found within a quarter of a second: %s', (_name, more) => {
    const { samples, sentences } = recording(more);
    const noise = fan(samples.length, rms(samples, 1500) / 10);
    const heard = samples.map((value, at) => value + noise[at]!);
    const times = sentenceTimes(SENTENCES, phrasesOf(levelsOf(heard)))!;
    const errors = times.flatMap(({ fromMs, toMs }, index) => [
      Math.abs(fromMs - sentences[index]!.fromMs),
      Math.abs(toMs - sentences[index]!.toMs),
    ]);
    expect(errors.reduce((sum, error) => sum + error, 0) / errors.length).toBeLessThan(250);
  });
  it('said in one breath are told apart by their letters', () => {
    const times = sentenceTimes(['One two three four.', 'Five six seven eight.'], [{ fromMs: 0, toMs: 4000 }])!;
    expect(Math.abs(times[0]!.toMs - 1900)).toBeLessThan(150);
    expect([times[0]!.fromMs, times[1]!.fromMs, times[1]!.toMs]).toEqual([0, times[0]!.toMs, 4000]);
  });
  it('are not found in silence', () => {
    expect(sentenceTimes(SENTENCES, [])).toBeNull();
  });
});

describe('the prompter', () => {
  it.each([
    ['in a quiet room', 0, {}],
    ['beside a fan', 0.1, { msALetter: 58, seed: 7 }],
    ['by a slow reader', 0.05, { msALetter: 88, seed: 12 }],
  ])('lights the sentence that is being said nine tenths of the time: %s', (_name, noise, more) => {
    const { samples, sentences } = recording(more);
    const room = fan(samples.length, noise * rms(samples, 1500) + 1e-5);
    const levels = levelsOf(samples.map((value, at) => value + room[at]!));
    const prompter = createPrompter(SENTENCES, levels.slice(20, 140).toSorted()[60]!);
    let [right, all] = [0, 0];
    levels.forEach((level, at) => {
      prompter.hear(level);
      const now = sentences.findIndex(({ fromMs, toMs }) => at * 10 >= fromMs && at * 10 < toMs);
      if (now < 0) return;
      all += 1;
      if (prompter.now() === now) right += 1;
    });
    expect(right / all).toBeGreaterThan(0.9);
  });
  it('goes on from where a person says they are', () => {
    const prompter = createPrompter(SENTENCES, -60);
    prompter.goTo(3);
    expect(prompter.now()).toBe(3);
    for (let at = 0; at < 30; at += 1) prompter.hear(-20);
    expect(prompter.now()).toBe(3);
  });
});

describe('captions', () => {
  it('have two lines of 42 letters at most, about equally long, broken after a comma rather', () => {
    expect(inLines('We set out at dusk, when the harbour was already quiet.')).toEqual([
      'We set out at dusk,',
      'when the harbour was already quiet.',
    ]);
    const long =
      'Nobody had expected so many people to come, and some of them had walked for an hour or longer than that from the far villages.';
    const pieces = inCaptions(long);
    expect(pieces.length).toBe(2);
    expect(pieces.join(' ').replace(/\n/g, ' ')).toBe(long);
    for (const piece of pieces) {
      expect(piece.split('\n').length).toBeLessThanOrEqual(CAPTION_LIMITS.lines);
      for (const line of piece.split('\n')) expect(line.length).toBeLessThanOrEqual(CAPTION_LIMITS.lettersALine);
    }
  });
  it('stand a second and long enough to be read where the next leaves room, and never over the next', () => {
    const captions = timedCaptions(
      ['Yes.', 'Every boat carried a lantern.', 'No.'],
      [
        { fromMs: 0, toMs: 300 },
        { fromMs: 2000, toMs: 3000 },
        { fromMs: 3400, toMs: 3600 },
      ],
    );
    expect(captions.map(({ fromMs, toMs }) => [fromMs, toMs])).toEqual([
      [0, 1000],
      [2000, 3400 - CAPTION_LIMITS.gapMs],
      [3400, 4400],
    ]);
  });
  it('of a sentence said slowly are two, so that none stands much longer than seven seconds', () => {
    const captions = timedCaptions(['Every June, when the light goes, they set out.'], [{ fromMs: 0, toMs: 12_000 }]);
    expect(captions.length).toBe(2);
    expect(captions.map(({ text }) => text).join(' ')).toBe('Every June, when the light goes, they set out.');
    for (const { fromMs, toMs } of captions) expect(toMs - fromMs).toBeLessThanOrEqual(CAPTION_LIMITS.mostMs);
    expect(faultOfCaption('Still there', 9000)).toMatch(/9 s; seven are usual/);
  });
  it('say what is against the usual limits', () => {
    expect(faultOfCaption('Short.', 1000)).toBeNull();
    expect(faultOfCaption('a'.repeat(50), 5000)).toMatch(/50 letters/);
    expect(faultOfCaption('one\ntwo\nthree', 5000)).toMatch(/3 lines/);
    expect(faultOfCaption('This is far too much for half a second.', 500)).toMatch(/letters a second/);
  });
});

const VOICE = assetId('a'.repeat(64));
const slide = (id: string, more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 5000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  layers: [],
  sounds: [],
  ...more,
});
const facts = new Map<typeof VOICE, AssetFacts>([
  [
    VOICE,
    {
      kind: 'sound',
      lengthMs: 6000,
      title: null,
      artist: null,
      listening: {
        loudness: { integratedLufs: -20, truePeakDb: -3, curve: [] },
        heardFromMs: 0,
        heardToMs: 6000,
        beats: null,
        sections: [],
        energy: [],
        accentsMs: [],
        phrases: [
          { fromMs: 1000, toMs: 2500 },
          { fromMs: 3000, toMs: 4500 },
        ],
      },
    },
  ],
]);
const show: Show = {
  ...emptyShow(showId('captions'), 'Captions'),
  slides: [
    slide('a'),
    slide('b', {
      script: 'The boats came late. The band played on.',
      sounds: [{ ...voiceHere(cueId('v'), VOICE, 700), trimStartMs: 800, trimEndMs: 4700 }],
    }),
  ],
};

describe('the captions of a show', () => {
  it('stand where the sentences of its voices are said, in the time of the show', () => {
    expect(captionsOfShow(show, facts, 'en')).toEqual([
      { slideId: 'b', index: 0, startMs: 5900, endMs: 7400, text: 'The boats came late.' },
      { slideId: 'b', index: 1, startMs: 7900, endMs: 9400, text: 'The band played on.' },
    ]);
    expect(captionLanguages(show)).toEqual(['en']);
    expect(captionsOfShow(show, facts, 'de')).toEqual([]);
  });
  it('are none for a take that rests, and move with the voice', () => {
    const rested = applyEdit(show, {
      kind: 'set-sound',
      slideId: slideId('b'),
      soundId: cueId('v'),
      properties: { resting: true },
    });
    expect(rested.ok && captionsOfShow(rested.show, facts, 'en')).toEqual([]);
    const later = applyEdit(show, {
      kind: 'set-sound',
      slideId: slideId('b'),
      soundId: cueId('v'),
      properties: { starts: { at: 'here', offsetMs: 1700 } },
    });
    expect(later.ok && captionsOfShow(later.show, facts, 'en')[0]!.startMs).toBe(6900);
  });
  it('by hand count instead, until they are taken away', () => {
    const captions = [{ fromMs: 0, toMs: 1500, text: 'By hand' }];
    const result = applyEdit(show, {
      kind: 'set-captions',
      captions: [{ slideId: slideId('b'), language: 'en', captions }],
    });
    if (!result.ok) throw new Error(result.sentence);
    expect(captionsOfShow(result.show, facts, 'en')).toEqual([
      { slideId: 'b', index: 0, startMs: 5000, endMs: 6500, text: 'By hand' },
    ]);
    const back = applyEdit(result.show, result.inverse);
    expect(back.ok && back.show).toEqual(show);
  });
  it('may not overlap', () => {
    const result = applyEdit(show, {
      kind: 'set-captions',
      captions: [
        {
          slideId: slideId('b'),
          language: 'en',
          captions: [
            { fromMs: 0, toMs: 1500, text: 'one' },
            { fromMs: 1000, toMs: 2500, text: 'two' },
          ],
        },
      ],
    });
    expect(result).toMatchObject({ ok: false, sentence: expect.stringContaining('overlap') });
  });
});

describe('caption files', () => {
  const captions = [
    { startMs: 0, endMs: 1500, text: 'Tea & <cake>' },
    { startMs: 3_723_004, endMs: 3_725_000, text: 'Two\nlines' },
  ];
  it('are written as WebVTT and SubRip, and read back the same', () => {
    expect(asVtt(captions, 'en')).toBe(
      'WEBVTT\nKind: captions\nLanguage: en\n\n00:00:00.000 --> 00:00:01.500\nTea &amp; &lt;cake&gt;\n\n01:02:03.004 --> 01:02:05.000\nTwo\nlines\n',
    );
    expect(asSrt(captions)).toContain('2\n01:02:03,004 --> 01:02:05,000\nTwo\nlines\n');
    expect(readCaptions(asVtt(captions, 'en'))).toEqual({ captions, language: 'en', problems: [] });
    expect(readCaptions(asSrt(captions)).captions).toEqual([captions[0], captions[1]]);
  });
  it('are read with what others write into them, and what is wrong is said by its line', () => {
    const read = readCaptions(
      '\uFEFFWEBVTT\r\n\r\nSTYLE\r\n::cue { color: red }\r\n\r\nNOTE made up\r\n\r\nfirst\r\n00:01.000 --> 00:02.500 align:start\r\n<v Ann><i>Hello</i> there\r\n\r\n00:05.000 --> 00:04.000\r\nBackwards\r\n\r\n00:xx --> 00:07.000\r\nNo times\r\n\r\n00:02.000 --> 00:03.000\r\nOver\r\n',
    );
    expect(read.captions).toEqual([
      { startMs: 1000, endMs: 2000, text: 'Hello there' },
      { startMs: 2000, endMs: 3000, text: 'Over' },
    ]);
    expect(read.problems).toEqual([
      expect.stringContaining('Line 12'),
      expect.stringContaining('Line 15'),
      expect.stringContaining('1 captions stood over others'),
    ]);
  });
  it('are laid to the slides they are read on; those past the end are counted', () => {
    const brought = captionsBrought(
      show,
      [
        { startMs: 4800, endMs: 6000, text: 'Across' },
        { startMs: 5500, endMs: 6500, text: 'On b' },
        { startMs: 99_000, endMs: 99_900, text: 'Too late' },
      ],
      'de',
    )!;
    expect(brought.leftOut).toBe(1);
    const result = applyEdit(show, brought.edit);
    if (!result.ok) throw new Error(result.sentence);
    expect(
      captionsOfShow(result.show, facts, 'de').map(({ slideId: id, startMs, endMs }) => [id, startMs, endMs]),
    ).toEqual([
      ['a', 4800, 5500],
      ['b', 5500, 6500],
    ]);
    expect(captionLanguages(result.show)).toEqual(['en', 'de']);
    expect(captionsBrought(show, [], 'de')).toBeNull();
  });
});
