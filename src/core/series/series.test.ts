import { describe, expect, it } from '@jest/globals';
import { ASSETS, FACTS, PICTURE, picture } from '../layers/slides.testing';
import type { AssetFacts } from '../show/asset-facts';
import { faultOfShow } from '../show/faults';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from '../show/ids';
import type { WordsLayer } from '../show/layer';
import { songAfter } from '../show/placed-sound';
import { assetIdsOf, emptyShow, type Show, type Slide } from '../show/show';
import { kindByName } from './file-kinds';
import { filmNameOf } from './film-name';
import { guessedMatches, namedPlaces, placesOf } from './places';
import { columnOfFolders, faultsOfSeries, listingOf, readRow } from './row';
import { tableOf, type SeriesPlan } from './series';
import { sameRows } from './same-rows';
import { showOfRow } from './show-of-row';

const SONG = assetId('5'.repeat(64));
const words = (id: string, title: string, subtitle = ''): WordsLayer => ({
  kind: 'words',
  id: layerId(id),
  title,
  subtitle,
  place: 'bottom',
});
const slide = (id: string, layers: Slide['layers'], more: Partial<Slide> = {}): Slide => ({
  id: slideId(id),
  lengthMs: 4000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers,
  ...more,
});
const shown = (id: string, at: number) => picture(id, { assetId: ASSETS[at]!, move: { kind: 'automatic' } });
/** An opener with words, three pictures, a closer: five pictures in all. */
const PATTERN: Show = {
  ...emptyShow(showId('pattern'), 'Ada Quill'),
  slides: [
    slide('opener', [shown('p0', 0), words('w0', 'Ada Quill', 'Class of {Year}')]),
    slide('s1', [shown('p1', 1)]),
    slide('s2', [shown('p2', 2)], { script: 'This is {Name}.', chapter: 'The years' }),
    slide('s3', [shown('p3', 3)]),
    slide('closer', [shown('p4', 4), words('w4', 'Farewell')]),
  ],
  cues: [songAfter(cueId('song'), SONG, 1000)],
};
const SOUND: AssetFacts = { kind: 'sound', lengthMs: 60_000, title: null, artist: null };
const PATTERN_FACTS = new Map<AssetId, AssetFacts>([...FACTS, [SONG, SOUND]]);
const PLACES = placesOf(PATTERN, PATTERN_FACTS);
const TABLE = tableOf([
  ['\uFEFFName', ' Year ', 'Pictures', 'Song'],
  ['Bo Reed', '2026', 'bo', 'bo/tune'],
  ['Cy Fenn', '2025', 'cy', ''],
]);
const PLAN: SeriesPlan = {
  ...{ columns: TABLE.columns, rows: TABLE.rows, spare: 'slides' },
  ...guessedMatches(PATTERN, PLACES, TABLE.columns),
};
const PATHS = [
  'bo/1.jpg',
  'bo/2.jpg',
  'bo/3.jpg',
  'bo/4.jpg',
  'bo/5.jpg',
  'bo/tune.mp3',
  'bo/note.txt',
  'CY/a10.png',
  'CY/a9.png',
];

/** Files of rows by their paths, each of its own content. */
const fileOf = (path: string): AssetId => {
  const digit = (PATHS.indexOf(path) + 17).toString(16);
  return assetId(digit.padStart(64, '0'));
};
const factsWith = (more: Readonly<Record<string, AssetFacts>> = {}) =>
  new Map<AssetId, AssetFacts>([
    ...PATTERN_FACTS,
    ...PATHS.map((path): [AssetId, AssetFacts] => [
      fileOf(path),
      more[path] ?? (path.endsWith('mp3') ? SOUND : PICTURE),
    ]),
  ]);
let made = 0;
function rowShow(number: number, plan = PLAN, { paths = PATHS, pattern = PATTERN, facts = factsWith() } = {}) {
  const places = placesOf(pattern, PATTERN_FACTS);
  const { wants, faults } = readRow(plan, places, pattern, number, listingOf(paths));
  expect(faults.filter(({ grave }) => grave)).toEqual([]);
  const given = { id: showId('row'), newId: () => `n${(made += 1)}` };
  const outcome = showOfRow(
    pattern,
    plan,
    places,
    wants,
    (path) => (facts.has(fileOf(path)) ? fileOf(path) : null),
    facts,
    given,
  );
  expect(faultOfShow(outcome.show)).toBeNull();
  return outcome;
}
const titles = (show: Show) =>
  show.slides.flatMap(({ layers }) =>
    layers.flatMap((layer) => (layer.kind === 'words' && !layer.hidden ? [[layer.title, layer.subtitle]] : [])),
  );
const pictures = (show: Show) =>
  show.slides.map(({ layers }) =>
    layers
      .flatMap((layer) =>
        layer.kind === 'picture' ? [PATHS.find((path) => fileOf(path) === layer.assetId) ?? layer.assetId[0]] : [],
      )
      .join(),
  );

describe('a table for a series', () => {
  it('is read without its byte order mark, blanks, and rows of nothing at its end', () => {
    const { columns, rows, fault } = tableOf([
      ['\uFEFFName ', 'Year', ''],
      [' Bo ', '2026\r\n', ' '],
      ['', ''],
    ]);
    expect({ columns, rows, fault }).toEqual({ columns: ['Name', 'Year'], rows: [['Bo', '2026']], fault: null });
  });
  it.each<[string, string[][], RegExp]>([
    ['no heads', [[]], /first row/],
    ['a column without a head', [['Name', '', 'Year'], ['a']], /Column 2 has no head/],
    ['a cell beyond its heads', [['Name'], ['a', 'lost']], /Column 2 has no head/],
    ['one head twice', [['Name', 'name '], ['a']], /Two columns are called “name”/],
    ['no rows', [['Name']], /no row/],
    ['too many rows', [['Name'], ...Array.from({ length: 2001 }, () => ['x'])], /2001 rows/],
    ['a cell that is a book', [['Name'], ['x'.repeat(10_001)]], /row 1 is longer/],
  ])('with %s is refused with a sentence', (_, cells, says) => {
    expect(tableOf(cells).fault).toMatch(says);
  });
});

describe('what goes where', () => {
  it('has a place for the title, all words, each picture once and the song', () => {
    expect([...namedPlaces(PLACES).keys()]).toEqual([
      ...['title', 'slide 1 picture', 'slide 1 title', 'slide 1 subtitle', 'slide 2 picture', 'slide 3 picture'],
      ...['slide 4 picture', 'slide 5 picture', 'slide 5 title', 'song'],
    ]);
  });
  it('is guessed from the heads: folder, song, title, and words that say the title', () => {
    const named = Object.fromEntries([...namedPlaces(PLACES)].map(([name, { id }]) => [name, PLAN.matches[id]]));
    expect(PLAN.folderColumn).toBe('Pictures');
    expect(named).toMatchObject({
      title: { by: 'column', column: 'Name' },
      'slide 1 title': { by: 'column', column: 'Name' },
      'slide 1 picture': { by: 'folder' },
      song: { by: 'column', column: 'Song' },
    });
    expect(named['slide 5 title']).toBeUndefined();
  });
  it('leaves what is cut out as it is: an emblem is everybody’s', () => {
    const facts = new Map([...PATTERN_FACTS, [ASSETS[4]!, { ...PICTURE, hasTransparency: true }]]);
    const { matches } = guessedMatches(PATTERN, placesOf(PATTERN, facts), TABLE.columns);
    expect(matches[`picture ${ASSETS[4]}`]).toBeUndefined();
    expect(matches[`picture ${ASSETS[3]}`]).toEqual({ by: 'folder' });
  });
  it('knows the column of folders by the folders that are there, whatever its head is called', () => {
    const german = {
      columns: ['Haus', 'Ordner'],
      rows: [
        ['Bo', 'BO'],
        ['Cy', 'cy/'],
        ['Di', 'nirgends'],
      ],
    };
    expect(columnOfFolders(german, listingOf(PATHS))).toBe('Ordner');
    expect(columnOfFolders(german, listingOf([]))).toBeNull();
    const { folderColumn, matches } = guessedMatches(PATTERN, PLACES, german.columns, 'Ordner');
    expect(folderColumn).toBe('Ordner');
    expect(matches[`picture ${ASSETS[0]}`]).toEqual({ by: 'folder' });
  });
  it('takes words that are a head, in braces or not, for that column', () => {
    const pattern = { ...PATTERN, slides: [slide('one', [words('w', '{year}', 'Name')])] };
    const { matches } = guessedMatches(pattern, placesOf(pattern, PATTERN_FACTS), TABLE.columns);
    expect(matches['words one w title']).toEqual({ by: 'column', column: 'Year' });
    expect(matches['words one w subtitle']).toEqual({ by: 'column', column: 'Name' });
  });
});

describe('files by the names people write', () => {
  const listing = listingOf(PATHS);
  it.each([
    ['bo/1.jpg', null, 'bo/1.jpg'],
    ['1.jpg', 'bo', 'bo/1.jpg'],
    ['.\\BO\\2.JPG', null, 'bo/2.jpg'],
    ['tune', 'bo', 'bo/tune.mp3'],
    ['none', 'bo', null],
    ['../bo/1.jpg', null, null],
    ['', 'bo', null],
  ])('finds %s in %s', (name, within, found) => {
    expect(listing.file(name, within, ['picture', 'sound'])).toBe(found);
  });
  it('lists a folder whatever its case, in the order a person counts', () => {
    expect(listing.below('cy/')).toEqual(['CY/a9.png', 'CY/a10.png']);
    expect(listing.below('nobody')).toBeNull();
  });
  it('knows kinds by endings', () => {
    expect(['a.JPG', 'b.mov', 'c.flac', 'd.txt', 'e'].map(kindByName)).toEqual([
      'picture',
      'clip',
      'sound',
      null,
      null,
    ]);
  });
  it('names films so that any system takes them, in the order of the rows', () => {
    expect(filmNameOf(7, 'A/B: "C"?\n', 'mp4')).toBe('007 A B C.mp4');
    expect(filmNameOf(12, '??', 'mp4')).toBe('012 film.mp4');
  });
});

describe('what is wrong with rows', () => {
  const said = (rows: string[][], plan: Partial<SeriesPlan> = {}, pattern = PATTERN) =>
    faultsOfSeries({ ...PLAN, rows, ...plan }, placesOf(pattern, PATTERN_FACTS), pattern, PATHS).map(
      ({ row, grave, says }) => `${row}${grave ? '!' : ''} ${says}`,
    );
  it('is told of every row before anything is made', () => {
    expect(
      said([
        ['Bo Reed', '2026', 'bo', 'bo/tune'],
        ['', '2025', 'nobody', 'none.mp3'],
        ['', '', '', ''],
        ['bo reed', '2025', 'cy', 'bo/1.jpg'],
        ['Di Marsh', '2025', '', ''],
      ]),
    ).toEqual([
      '2! It has no title: its film needs one.',
      '2 “Name” is empty: the words “Ada Quill” on slide 1 are left out.',
      '2! There is no file “none.mp3” for its song.',
      '2! There is no folder “nobody”.',
      '3! It is empty.',
      '4! “bo/1.jpg” is no song.',
      '4 Its film is called “bo reed”, as that of row 1.',
      '5 “Song” is empty: the song of the pattern stays.',
      '5! It does not say which folder its pictures are in.',
    ]);
  });
  it('tells of a folder without pictures, and of words that are too long', () => {
    const rows = [['x'.repeat(2001), '1', 'bo', '']];
    const found = faultsOfSeries({ ...PLAN, rows }, PLACES, PATTERN, ['bo/note.txt']).map(({ says }) => says);
    expect(found).toContain('Its title is longer than 300 letters.');
    expect(found).toContain('The words for slide 1 are longer than 2000 letters.');
    expect(found).toContain('There is no picture in the folder “bo”.');
  });
  it('tells of columns that are gone and braces that name none', () => {
    const lost = said([['Bo']], { columns: ['Names'], folderColumn: null });
    expect(lost.filter((says) => says.startsWith('0!'))).toEqual([
      '0! There is no column “Name” in the table any more. Match what it filled anew.',
      '0! There is no column “Song” in the table any more. Match what it filled anew.',
      '0! Slide 1 says {Year}, and no column is called so.',
      '0! The script of slide 3 says {Name}, and no column is called so.',
    ]);
  });
  it('tells when files were brought and nothing uses them, with the column that may name their folders', () => {
    const plan = {
      columns: ['Haus', 'Ordner'],
      matches: { title: { by: 'column' as const, column: 'Haus' } },
      folderColumn: null,
    };
    const pattern = { ...PATTERN, slides: [slide('one', [shown('p', 0)])] };
    expect(said([['Bo', 'bo']], plan, pattern)).toContain(
      '0 9 files were brought, and nothing uses them: “Ordner” names folders that are there. Choose it as a row’s folder.',
    );
    expect(said([['Ed', 'x']], plan, pattern)).toContain(
      '0 9 files were brought, and nothing uses them: say which column names a row’s folder, or a file for a place.',
    );
    expect(said([['Bo', 'bo']], { ...plan, folderColumn: 'Ordner' }, pattern).join()).not.toMatch(/nothing uses/);
  });
  it('tells when nothing changes from row to row', () => {
    const pattern = { ...PATTERN, slides: [slide('one', [shown('p', 0)])] };
    expect(said([['a', '', '', '']], { matches: {} }, pattern)).toContain(
      '0! Nothing of the pattern changes from row to row yet. Match a column to what it is to fill.',
    );
  });
});

describe('the show of a row', () => {
  it('is the pattern with the row’s words, pictures and song in their places', () => {
    const { show, told } = rowShow(1);
    expect(show.title).toBe('Bo Reed');
    expect(titles(show)).toEqual([
      ['Bo Reed', 'Class of 2026'],
      ['Farewell', ''],
    ]);
    expect(show.slides[2]).toMatchObject({ script: 'This is Bo Reed.', chapter: 'The years' });
    expect(pictures(show)).toEqual(['bo/1.jpg', 'bo/2.jpg', 'bo/3.jpg', 'bo/4.jpg', 'bo/5.jpg']);
    expect(show.cues[0]).toMatchObject({ assetId: fileOf('bo/tune.mp3') });
    expect(told).toEqual([]);
    expect(assetIdsOf(show).some((id) => PATTERN_FACTS.has(id))).toBe(false);
  });
  it('leaves slides out where the folder has fewer, and keeps those that say something of the row, the first and the last', () => {
    const { show, told } = rowShow(2);
    expect(pictures(show)).toEqual(['CY/a9.png', 'CY/a10.png']);
    expect(titles(show)).toEqual([
      ['Cy Fenn', 'Class of 2025'],
      ['Farewell', ''],
    ]);
    expect(told).toEqual(['Its folder has fewer pictures than the pattern: 3 slides left out.']);
    expect(show.cues[0]!.assetId).toBe(SONG);
  });
  const three = { ...PATTERN, slides: [PATTERN.slides[0]!, PATTERN.slides[1]!, PATTERN.slides[4]!] };
  it('gives further pictures slides like the pattern’s, which say nothing again', () => {
    const { show, told } = rowShow(1, PLAN, { pattern: three });
    expect(pictures(show)).toEqual(['bo/1.jpg', 'bo/2.jpg', 'bo/3.jpg', 'bo/4.jpg', 'bo/5.jpg']);
    expect(
      titles(show)
        .flat()
        .filter((text) => text === 'Bo Reed'),
    ).toHaveLength(1);
    expect(new Set(show.slides.map(({ id }) => id)).size).toBe(5);
    expect(told).toEqual(['Its folder has more pictures than the pattern: 2 slides more.']);
  });
  it('chooses the best instead when that is wanted, and says how many are not shown', () => {
    const { show, told } = rowShow(1, { ...PLAN, spare: 'best' }, { pattern: three });
    expect(pictures(show)).toHaveLength(3);
    expect(told).toEqual(['2 pictures of its folder are not shown: the best 3 were chosen.']);
  });
  it('works crops and set moves out anew, and shows a clip where one comes', () => {
    const framing = { x: 0.5, y: 0.5, width: 0.4, height: 0.4, turnDegrees: 0 };
    const held = picture('p1', {
      ...{ assetId: ASSETS[1]!, crop: framing, flip: { across: true }, chosen: { move: 'hand' } },
      move: { kind: 'set', first: framing, last: framing },
    });
    const pattern = { ...PATTERN, slides: [PATTERN.slides[0]!, slide('s1', [held]), slide('s2', [shown('p2', 2)])] };
    const clip: AssetFacts = {
      kind: 'clip',
      widthPx: 100,
      heightPx: 100,
      lengthMs: 2500,
      hasSound: false,
      takenAt: null,
    };
    const paths = PATHS.filter((path) => !/[45].jpg/.test(path));
    const { show } = rowShow(1, PLAN, { pattern, paths, facts: factsWith({ 'bo/3.jpg': clip }) });
    expect(show.slides[1]!.layers[0]).toEqual({
      ...picture('p1'),
      assetId: fileOf('bo/2.jpg'),
      move: { kind: 'automatic' },
      flip: { across: true },
    });
    expect(show.slides[2]).toMatchObject({
      lengthMs: 2500,
      layers: [{ kind: 'clip', assetId: fileOf('bo/3.jpg'), soundGainDb: -60 }],
    });
  });
  it('fills one picture of several on a slide from what is there when the folder ends', () => {
    const pattern = { ...PATTERN, slides: [slide('both', [shown('p0', 0), shown('p1', 1), shown('p2', 2)])] };
    expect(pictures(rowShow(2, PLAN, { pattern }).show)).toEqual(['CY/a9.png,CY/a9.png,CY/a10.png']);
  });
  it('leaves out files that cannot be used, and says so; with none there is no show', () => {
    const facts = factsWith();
    facts.delete(fileOf('bo/2.jpg'));
    const { show, told } = rowShow(1, PLAN, { facts });
    expect(pictures(show)).toEqual(['bo/1.jpg', 'bo/3.jpg', 'bo/4.jpg', 'bo/5.jpg']);
    expect(told[0]).toBe('1 file of its folder cannot be used.');
    for (const path of PATHS) facts.delete(fileOf(path));
    expect(() => rowShow(2, PLAN, { facts })).toThrow('None of the pictures in its folder can be used.');
  });
  it('hides words of which nothing is left and forgets captions that were set for another script', () => {
    const captions = { en: [{ fromMs: 0, toMs: 900, text: 'This is Ada.' }] };
    const pattern = { ...PATTERN, slides: [PATTERN.slides[0]!, { ...PATTERN.slides[2]!, captions }] };
    const plan: SeriesPlan = {
      ...PLAN,
      rows: [['Bo', '', 'bo', '']],
      matches: {
        ...PLAN.matches,
        'words opener w0 title': { by: 'column', column: 'Song' },
        'words opener w0 subtitle': { by: 'column', column: 'Song' },
      },
    };
    const { show } = rowShow(1, plan, { pattern });
    expect(titles(show)).toEqual([]);
    expect(show.slides[1]!.captions).toBeUndefined();
  });
  it('follows the row’s own song where the pictures follow the music, and says when they are too few for it', () => {
    const pattern: Show = { ...PATTERN, pace: { by: 'music' } };
    const { show, told } = rowShow(2, { ...PLAN, rows: [PLAN.rows[1]!, ['Cy', '1', 'cy', 'bo/tune']] }, { pattern });
    const lengthMs = show.slides.reduce((sum, one) => sum + one.lengthMs, 0);
    expect(Math.abs(lengthMs - 60_000)).toBeLessThan(50);
    expect(told.at(-1)).toMatch(/Few pictures for its song: each is seen for 30 s/);
  });
});

describe('a table that is brought anew', () => {
  const of = (rows: string[][], more: Partial<SeriesPlan> = {}) => ({ ...PLAN, rows, ...more });
  const before = of([
    ['Bo', '1', 'bo', ''],
    ['Cy', '1', 'cy', ''],
    ['Di', '1', '', ''],
  ]);
  it('knows its rows again by their folder, else by their title, wherever they stand', () => {
    const after = of([
      ['Di', '2', '', ''],
      ['New', '2', 'new', ''],
      ['Bo Reed', '2', 'BO/', ''],
    ]);
    expect([...sameRows(before, after, PATTERN)]).toEqual([
      [1, 3],
      [3, 1],
    ]);
  });
  it('never takes a row for another that stands in its place', () => {
    expect([...sameRows(before, of([['Ed', '1', 'ed', '']]), PATTERN)]).toEqual([]);
    expect([
      ...sameRows(
        before,
        of([
          ['Bo', '1', 'bo', ''],
          ['Bo', '1', 'bo', ''],
        ]),
        PATTERN,
      ),
    ]).toEqual([[1, 1]]);
  });
});
