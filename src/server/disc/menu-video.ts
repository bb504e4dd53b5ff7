import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import { highlightDocument } from '../../core/disc/authoring';
import type { DiscPlan } from '../../core/disc/disc-plan';
import { STANDARDS } from '../../core/disc/disc-standard';
import { MENU_KBITS } from '../../core/disc/fit-disc';
import { highlightPicture } from '../../core/disc/highlight';
import type { MenuPage } from '../../core/disc/menu-pages';
import { SEAM_MS, type MenuColours } from '../../core/disc/menu-shows';
import { discScale, discVideo, SILENCE } from '../films/disc-video';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { runDiscProgram } from './disc-programs';

interface MenuVideo {
  readonly plan: DiscPlan;
  readonly page: MenuPage;
  /** The page as a film. */
  readonly drawn: string;
  readonly hasSound: boolean;
  readonly colours: MenuColours;
  readonly lengthMs: number;
  readonly roundMs: number;
  /** For what is of no use afterwards. */
  readonly folder: string;
  readonly index: number;
  readonly signal?: AbortSignal | undefined;
}

/**
 * Makes a page of the menu for the disc: its end gives way to where its round begins, in picture and sound, so that nobody sees it go round; what is lit is laid into it.
 *
 * @returns the file
 */
export async function menuVideo(menu: MenuVideo): Promise<string> {
  const { plan, page, drawn, hasSound, colours, lengthMs, roundMs, folder, index, signal } = menu;
  const { heightPx } = STANDARDS[plan.standard];
  const seam = SEAM_MS / 1000;
  const [length, round] = [lengthMs / 1000, roundMs / 1000];
  const encoded = path.join(folder, `page-${index + 1}.mpg`);
  const sound = hasSound ? '0:a' : '1:a';
  const graph = [
    '[0:v]split[all][again]',
    `[again]trim=start=${round - seam}:end=${round},setpts=PTS-STARTPTS[begins]`,
    `[all][begins]xfade=transition=fade:duration=${seam}:offset=${length - seam}[joined]`,
    `[joined]${discScale(plan.standard)}[v]`,
    ...(hasSound
      ? [
          `[${sound}]asplit[heard][heardagain]`,
          `[heard]atrim=end=${length},asetpts=PTS-STARTPTS[whole]`,
          `[heardagain]atrim=start=${round - seam}:end=${round},asetpts=PTS-STARTPTS[soundbegins]`,
          `[whole][soundbegins]acrossfade=d=${seam}:c1=tri:c2=tri[a]`,
        ]
      : [`[${sound}]atrim=end=${length}[a]`]),
  ];
  await runFfmpeg(
    [
      ...['-i', drawn, ...(hasSound ? [] : SILENCE)],
      ...['-filter_complex', graph.join(';'), '-map', '[v]', '-map', '[a]'],
      ...discVideo(plan.standard, plan.shape, MENU_KBITS, ''),
      ...['-force_key_frames', String(round - 0.002), '-t', String(length), '-y', encoded],
    ],
    { signal },
  );
  let last = encoded;
  for (const letterboxed of plan.shape === '16:9' ? [false, true] : [false]) {
    const name = path.join(folder, `page-${index + 1}-${letterboxed ? 'bars' : 'full'}`);
    const files = { chosen: `${name}-chosen.png`, pressed: `${name}-pressed.png` };
    for (const which of ['chosen', 'pressed'] as const) {
      const { rgba, widthPx } = highlightPicture(page, heightPx, letterboxed, colours[which]);
      const raw = `${name}-${which}.rgba`;
      await writeFile(raw, rgba);
      const input = ['-f', 'rawvideo', '-pix_fmt', 'rgba', '-video_size', `${widthPx}x${heightPx}`, '-i', raw];
      await runFfmpeg([...input, '-frames:v', '1', '-y', files[which]], { signal });
    }
    await writeFile(`${name}.xml`, highlightDocument(page, plan, letterboxed, files, lengthMs));
    const output = `${name}.mpg`;
    await runDiscProgram('spumux', ['-m', 'dvd', '-s', letterboxed ? '1' : '0', `${name}.xml`], {
      input: last,
      output,
      signal,
    });
    last = output;
  }
  return last;
}
