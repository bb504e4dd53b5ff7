import type { Shown } from '../../core/screening/shown-film';
import { bitsASecond, type Programme, type Screening } from './screening-service';

/** A screening as its page shows it. */
export function shownOf(token: string, screening: Screening, { chapters, languages }: Programme): Shown {
  const { title, settings, films } = screening;
  return {
    token,
    title,
    chapters,
    settings,
    lengthMs: films[0]!.lengthMs,
    films: films.map((film) => ({
      id: film.id,
      widthPx: film.spec.widthPx,
      heightPx: film.spec.heightPx,
      bitsASecond: bitsASecond(film),
    })),
    languages: languages.map((tag) => ({ tag, name: languageName(tag) })),
  };
}

/** As its own speakers call it. */
function languageName(tag: string): string {
  const name = new Intl.DisplayNames([tag], { type: 'language' }).of(tag) ?? tag;
  return name.charAt(0).toLocaleUpperCase(tag) + name.slice(1);
}
