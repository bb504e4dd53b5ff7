import { describe, expect, it } from '@jest/globals';
import { letterHtml, letterText, type LetterParts } from './letter';
import { addressesIn, publicationSentence, strangeAddress, type PublicationRow } from './publication';

const letter: LetterParts = {
  title: 'Lantern <Regatta> & friends',
  words: 'Dear choir,\nit is done.\n\n<script>alert(1)</script>',
  link: 'https://harrowlane.example/s/abc?a="b"',
  length: '4 min 12 s',
  asksPassword: true,
  until: '12 March 2027',
  studio: 'Harrow Lane',
  contact: 'hello@harrowlane.example',
  poster: 'poster',
};

describe('addresses that were written in one field', () => {
  it('are told apart by commas, semicolons, spaces and lines, and each counts once whatever its case', () => {
    expect(addressesIn(' ilka@example.org, Tom@example.org;\nmia@example.org tom@EXAMPLE.org ')).toEqual([
      'ilka@example.org',
      'Tom@example.org',
      'mia@example.org',
    ]);
    expect(addressesIn(' , ;')).toEqual([]);
  });
  it('are looked at one by one: the first that is none is named', () => {
    expect(strangeAddress(['ilka@example.org', 'tom', 'mia'])).toBe('tom');
    expect(strangeAddress(['ilka@example.org'])).toBeUndefined();
  });
});

describe('a letter', () => {
  it('says in plain text all it says otherwise: words, title, link, length, password, end, studio', () => {
    const text = letterText(letter);
    for (const part of [
      letter.words,
      letter.title,
      letter.link,
      '4 min 12 s',
      'password',
      '12 March 2027',
      'Harrow Lane',
    ])
      expect(text).toContain(part);
  });
  it('takes nothing a person wrote for HTML', () => {
    const html = letterHtml(letter);
    expect(html).not.toContain('<script>');
    expect(html).toContain('&lt;script&gt;');
    expect(html).toContain('href="https://harrowlane.example/s/abc?a=&quot;b&quot;"');
    expect(html).toContain('Dear choir,<br>it is done.');
  });
  it('loads nothing from anywhere: its one picture comes with it', () => {
    const sources = [...letterHtml(letter).matchAll(/src="([^"]*)"/g)].map(([, source]) => source);
    expect(sources).toEqual(['cid:poster']);
    expect(letterHtml({ ...letter, poster: null })).not.toContain('<img');
  });
  it('leaves out what there is nothing to say of', () => {
    const text = letterText({ ...letter, words: '', asksPassword: false, until: null, studio: '', contact: '' });
    expect(text).toBe(`${letter.title} (4 min 12 s)\n${letter.link}\n`);
  });
  it('is written in colours that read, also when the studio’s own do not', () => {
    const faint = { ink: '#bbbbbb', paper: '#dddddd', accent: '#ffee88', soft: '#cccccc' };
    const html = letterHtml({ ...letter, palette: faint });
    expect(html).toContain('background:#f4f0e8;color:#211d19');
    expect(html).toContain('background:#ffee88;color:#000000');
  });
});

describe('what is said of something that was handed over', () => {
  const row: PublicationRow = {
    id: 'a',
    kind: 'video',
    to: 'Harbour films',
    title: 'Lantern Regatta',
    state: 'working',
    progress: { step: 'handing-over', share: 0.429 },
    problem: null,
    tries: 0,
    nextTryAt: null,
    address: null,
    orderedAt: 0,
    endedAt: null,
  };
  it.each<[Partial<PublicationRow>, string]>([
    [{}, 'on its way, 42 %'],
    [{ progress: { step: 'processing', share: 0.5 } }, 'being prepared there, 50 %'],
    [{ progress: { step: 'processing', share: null } }, 'being prepared there'],
    [{ state: 'waiting', progress: null }, 'waits for its turn'],
    [{ state: 'waiting', tries: 2, nextTryAt: 9000, progress: null }, 'tried 2 times; again in 8 s'],
    [{ state: 'waiting', nextTryAt: 9000, progress: null, kind: 'mail' }, 'goes out in 8 s'],
    [{ state: 'there' }, 'can be watched'],
    [{ state: 'there', kind: 'mail' }, 'was delivered'],
    [{ state: 'taken-down' }, 'was taken down there'],
  ])('%j reads “%s”', (more, sentence) => {
    expect(publicationSentence({ ...row, ...more }, 1000)).toBe(sentence);
  });
});
