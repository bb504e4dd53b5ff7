/** Every command with what it takes; help, completion and the man page are made of it. */
export const USAGE = `tanager make PICTURES... --out film.mp4 [--music SONG] [--height 720|1080] [--fps 30]
             [--seconds-per-picture 5 | --fit music] [--title TEXT] [--save show.json] [--json]
             [--start NAME] [--plumage NAME] [--opener NAME|FILE.zip] [--closer NAME|FILE.zip] [--logo FILE]
             [--credits TEXT]
    Makes a film of pictures, clips or folders of them, in the order given; with --start (session, wedding, event,
    house-tour, lesson, life-story, school-year, travel-diary) of the best of them in order of time, dressed and closed.
tanager mounts list|show NAME|export NAME --out FILE.zip|import FILE.zip [--json]
    Ready-made slides: tells of them, hands one on, takes one in.
tanager export SHOW.json --out FILE [--purpose NAME] [--size 1920x1080] [--fps N] [--format NAME]
             [--quality light|good|best] [--mb N] [--from SECONDS] [--to SECONDS] [--keep FOLDER] [--json]
    Makes a film of a saved show: for a purpose (screen, web, upright, square, phone, email, projector, teaser,
    page, sound, disc, edit) or by numbers. What is made goes to --keep, and is not made again the next time.
tanager disc SHOWS.json... --out FILE.iso [--standard pal|ntsc] [--shape 16:9|4:3] [--layers 1|2] [--begins menu|film]
             [--afterwards menu|again] [--chapters titles|slides|none] [--title TEXT] [--words TEXT] [--mount NAME]
             [--buttons right|left|below] [--menu-seconds N] [--silent] [--keep FOLDER] [--json]
    Makes the image of a video disc from saved shows, with a menu and chapters, as good as fits; then tries every button.
tanager frame SHOW.json --at SECONDS --out still.png [--height N] [--shape 9:16]
    Draws one moment of a saved show, in another shape of the frame if wanted.
tanager check SHOW.json [--shape 9:16] [--json]
    Looks a saved show over and tells what will embarrass; ends with 3 when any of it is grave.
    With --server URL (and --token TOKEN), as voice, bundle, import and disc: a show of a server, by its id or title.
tanager listen SONG [--json]
    Tells what is heard in a song: its tempo, beats, bars and sections, and how loud it is.
tanager tailor SONG --to SECONDS --out song.wav [--json]
    Makes a song longer or shorter by joining it where it goes on alike.
tanager band --style NAME --out music.opus|music.wav [--mood NAME] [--bpm N] [--energy 0..1] [--seconds N] [--seed N]
             [--without INSTRUMENT]... [--with INSTRUMENT]... [--midi FILE] [--musicxml FILE] [--json]
    Has the house band play music made to measure, ending exactly where it must; its score as MIDI and MusicXML.
tanager voice SHOW.json --slide N --take FILE [--script TEXT] [--clean gently|thoroughly|no] [--json]
    Lays a recorded voice on a slide of a saved show, cleaned and trimmed; the slide waits for it.
tanager captions SHOW.json --out FILE.vtt|srt [--language TAG]
    Writes what is said in a saved show as captions.
tanager bundle SHOW --out FILE.show.zip [--json]
    Saves a show of the shelf, its files and versions as one file; SHOW is its id or its title.
tanager import FILE.show.zip [--json]
    Takes such a file onto the shelf; ends with 3 when some of its files are not as they were, and says which.
tanager series PATTERN.json ROWS.csv --out FOLDER [--files FOLDER] [--purpose web] [--match "slide 1 title=Name"]...
             [--folder COLUMN] [--spare slides|best] [--row N]... [--check] [--json]
    Makes a film for each row of a table after one saved show; again, those that changed. With --check it tells what
    fills what and what is wrong. Ends with 3 when some rows became no film.
tanager find SHOW.json FOLDER [--json]
    Finds files of a saved show that were moved in a folder, by what is in them, and writes where they are now; ends with
    3 when some are still missing.
tanager timeline SHOW.json --out FILE.otio|csv|ffmetadata [--json]
    Writes a saved show as a timeline in OpenTimelineIO, its order as a table, or its chapters.
tanager timeline FILE.otio --out SHOW.json [--files FOLDER] [--json]
    Makes a saved show of a timeline and the files of a folder; ends with 3 when files it names are not there.
tanager backup FOLDER [--json]
    Copies everything people made into a folder; again, what is new. The server may go on meanwhile.
tanager bring-back FOLDER [--json]
    Brings a backup back. What lies in the data folder is put aside.
tanager shows [--server URL] [--token TOKEN] [--json]
    What is on the shelf of a server.
tanager new TITLE [--server URL] [--token TOKEN] [--json]
    Begins a show on a server and prints its id.
tanager add SHOW FILES... [--server URL] [--token TOKEN] [--json]
    Brings files, or folders of them, onto the contact sheet of a show on a server, and waits until they were looked at.
tanager arrange SHOW [--by time|name] [--seconds N] [--server URL] [--token TOKEN] [--json]
    Lays all pictures and clips of a show on a server into its order that are not in it yet.
tanager words SHOW --slide N [--title TEXT] [--subtitle TEXT] [--server URL] [--token TOKEN] [--json]
    Words on a slide of a show on a server.
tanager music SHOW SONG [--lead pictures|music] [--server URL] [--token TOKEN] [--json]
    A song under a show on a server.
tanager plumage SHOW NAME [--server URL] [--token TOKEN] [--json]
    The look of a whole show on a server.
tanager film SHOW [--purpose NAME] [--out FILE] [--server URL] [--token TOKEN] [--json]
    Has a film made by a server, waits for it and fetches it.
tanager screen SHOW [--film ID] [--server URL] [--token TOKEN] [--json]
    Opens a screening of a film and prints its link.
tanager completion bash|zsh|fish
    Prints what makes a shell complete these commands: tanager completion bash > /etc/bash_completion.d/tanager
tanager man
    Prints this as a man page: tanager man > /usr/local/share/man/man1/tanager.1
tanager enter [--json]
    Makes a link that signs the studio's owner in, once. The server may go on meanwhile.
tanager studio NAME [--json]
    Makes another studio on the same server, with a link for its owner. Neither sees anything of the other.
`;

/** Commands that make something of files can be told to do it again whenever a folder changes. */
export const WATCHED: readonly string[] = [
  'make',
  'export',
  'disc',
  'series',
  'check',
  'bundle',
  'captions',
  'timeline',
  'frame',
];

/** What the exit codes mean. */
export const EXIT_CODES: readonly (readonly [code: number, means: string])[] = [
  [0, 'It was done.'],
  [1, 'It could not be done; a sentence on stderr says why.'],
  [2, 'It was asked wrongly.'],
  [
    3,
    'It was done, and something is to be looked at: check found something grave, find, import, timeline or series lack files.',
  ],
];

export interface CommandUsage {
  readonly name: string;
  /** Ways to call it, without the program’s name. */
  readonly ways: readonly string[];
  readonly says: string;
  /** `--out`, … */
  readonly options: readonly string[];
}

/** The commands of the usage, in its order. */
export function commandsIn(usage: string): CommandUsage[] {
  const blocks = usage.split(/^(?=tanager )/m).filter((block) => block.startsWith('tanager '));
  const byName = new Map<string, CommandUsage>();
  for (const block of blocks) {
    const lines = block.trimEnd().split('\n');
    const says = lines.filter((line) => /^ {4}\S/.test(line)).map((line) => line.trim());
    const way = lines
      .filter((line) => !/^ {4}\S/.test(line))
      .map((line) => line.trim())
      .join(' ')
      .replace(/^tanager /, '');
    const [name] = /^\S+/.exec(way)!;
    const known = byName.get(name);
    const options = [...new Set([...(known?.options ?? []), ...(way.match(/--[a-z-]+/g) ?? [])])];
    byName.set(name, {
      ...{ name, options },
      ways: [...(known?.ways ?? []), way],
      says: [known?.says ?? '', says.join(' ')].filter((part) => part !== '').join(' '),
    });
  }
  return [...byName.values()];
}
