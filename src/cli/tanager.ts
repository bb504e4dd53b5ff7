import { backupCommand } from './backup-command';
import { bundleCommand } from './bundle-command';
import { checkCommand } from './check-command';
import { peopleCommand } from './people-command';
import { mountsCommand } from './mounts-command';
import { captionsCommand } from './captions-command';
import { exportCommand } from './export-command';
import { makeCommand } from './make-command';
import { frameCommand } from './frame-command';
import { listenCommand } from './listen-command';
import { seriesCommand } from './series-command';
import { timelineCommand } from './timeline-command';
import { tailorCommand } from './tailor-command';
import { voiceCommand } from './voice-command';
import { UsageError } from './usage-error';

export interface Surroundings {
  /** Paths are relative to this folder. */
  readonly folder: string;
  out(text: string): void;
  /** For progress and problems. */
  tell(text: string): void;
}

const USAGE = `tanager make PICTURES... --out film.mp4 [--music SONG] [--height 720|1080] [--fps 30]
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
    sound, disc, edit) or by numbers. What is made goes to --keep, and is not made again the next time.
tanager frame SHOW.json --at SECONDS --out still.png [--height N] [--shape 9:16]
    Draws one moment of a saved show, in another shape of the frame if wanted.
tanager check SHOW.json [--shape 9:16] [--json]
    Looks a saved show over and tells what will embarrass; ends with 3 when any of it is grave.
tanager listen SONG [--json]
    Tells what is heard in a song: its tempo, beats, bars and sections, and how loud it is.
tanager tailor SONG --to SECONDS --out song.wav [--json]
    Makes a song longer or shorter by joining it where it goes on alike.
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
tanager timeline SHOW.json --out FILE.otio|csv|ffmetadata [--json]
    Writes a saved show as a timeline in OpenTimelineIO, its order as a table, or its chapters.
tanager timeline FILE.otio --out SHOW.json [--files FOLDER] [--json]
    Makes a saved show of a timeline and the files of a folder; ends with 3 when files it names are not there.
tanager backup FOLDER [--json]
    Copies everything people made into a folder; again, what is new. The server may go on meanwhile.
tanager bring-back FOLDER [--json]
    Brings a backup back. What lies in the data folder is put aside.
tanager enter [--json]
    Makes a link that signs the studio's owner in, once. The server may go on meanwhile.
tanager studio NAME [--json]
    Makes another studio on the same server, with a link for its owner. Neither sees anything of the other.
`;

/** @returns the exit code: 0 done, 2 wrong use, 3 from `check` when something grave was found, from `import` when files were not as they were and from `series` when rows became no film, 1 anything else */
export async function main(args: readonly string[], folder: string): Promise<number> {
  const surroundings: Surroundings = {
    folder,
    out: (text) => void process.stdout.write(text),
    tell: (text) => void process.stderr.write(text),
  };
  const [command, ...rest] = args;
  try {
    if (command === 'make') return await makeCommand(rest, surroundings);
    if (command === 'export') return await exportCommand(rest, surroundings);
    if (command === 'backup' || command === 'bring-back') return await backupCommand(command, rest, surroundings);
    if (command === 'bundle' || command === 'import') return await bundleCommand(command, rest, surroundings);
    if (command === 'enter' || command === 'studio') return await peopleCommand(command, rest, surroundings);
    if (command === 'mounts') return await mountsCommand(rest, surroundings);
    if (command === 'timeline') return await timelineCommand(rest, surroundings);
    if (command === 'series') return await seriesCommand(rest, surroundings);
    if (command === 'tailor') return await tailorCommand(rest, surroundings);
    if (command === 'voice') return await voiceCommand(rest, surroundings);
    if (command === 'captions') return await captionsCommand(rest, surroundings);
    if (command === 'listen') return await listenCommand(rest, surroundings);
    if (command === 'check') return await checkCommand(rest, surroundings);
    if (command === 'frame') return await frameCommand(rest, surroundings);
    if (command === '--help' || command === 'help') {
      surroundings.out(USAGE);
      return 0;
    }
    throw new UsageError(command === undefined ? 'What shall it do?' : `There is no command “${command}”.`);
  } catch (error) {
    if (error instanceof UsageError) {
      surroundings.tell(`${error.message}\n\n${USAGE}`);
      return 2;
    }
    surroundings.tell(`${error instanceof Error ? error.message : String(error)}\n`);
    const details = (error as { details?: unknown }).details;
    if (typeof details === 'string' && details !== '') surroundings.tell(`${details}\n`);
    return 1;
  }
}
