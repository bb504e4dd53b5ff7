import type { FilmChapter } from './chapters';

/** ffmpeg's own way of writing down what a file is called and where its chapters begin (ffmpeg-formats, “Metadata”). */
export function asFfmetadata(title: string, chapters: readonly FilmChapter[]): string {
  const escaped = (text: string) => text.replace(/[\r\n]+/g, ' ').replace(/[=;#\\]/g, '\\$&');
  const parts = chapters.map(
    (chapter) =>
      `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${Math.round(chapter.startMs)}\nEND=${Math.round(chapter.endMs)}\ntitle=${escaped(chapter.title)}\n`,
  );
  return `;FFMETADATA1\ntitle=${escaped(title)}\n${parts.join('')}`;
}
