import { Lock } from 'lucide-react';
import type { BilledFilm } from '../../core/screening/bill';
import { clock } from '../kit/clock';

interface BillPageProps {
  readonly title: string;
  readonly words: string;
  readonly films: readonly BilledFilm[];
}

/** Several films, each leading to its own page. Whole without scripts. */
export function BillPage({ title, words, films }: BillPageProps) {
  return (
    <div className="mx-auto w-full max-w-[1080px] px-4 py-8 sm:px-8 sm:py-12" data-part="bill-page">
      <h1 className="max-w-[22ch] font-(family-name:--titles) text-xl leading-tight [font-weight:var(--titles-weight)] [letter-spacing:var(--titles-spacing)]">
        {title}
      </h1>
      {words !== '' && <p className="mt-3 max-w-[60ch] text-base whitespace-pre-line text-(--soft)">{words}</p>}
      {films.length === 0 ? (
        <p className="mt-10 text-base text-(--soft)">No film is shown here at the moment.</p>
      ) : (
        <ul className="mt-8 grid grid-cols-1 gap-x-8 gap-y-9 sm:grid-cols-2">
          {films.map((film) => (
            <li key={film.token} data-part="billed-film">
              <a href={`/s/${film.token}`} className="group block rounded-sm">
                <span className="grid aspect-[16/9] place-items-center overflow-hidden rounded-sm border border-(--rule)">
                  {film.title === null ? (
                    <Lock size={30} aria-hidden="true" className="text-(--soft)" />
                  ) : (
                    // Made with the film.
                    // eslint-disable-next-line @next/next/no-img-element
                    <img
                      src={`/api/v1/screenings/${film.token}/picture`}
                      alt=""
                      className="h-full w-full object-contain transition-opacity group-hover:opacity-90"
                    />
                  )}
                </span>
                <span className="mt-3 flex items-baseline gap-4">
                  <span className="font-(family-name:--titles) text-lg underline decoration-transparent underline-offset-4 group-hover:decoration-(--accent)">
                    {film.title ?? 'A private screening'}
                  </span>
                  {film.lengthMs !== null && (
                    <span className="tabular ml-auto text-(--soft)">{clock(film.lengthMs)}</span>
                  )}
                </span>
                <span className="mt-1 block text-(--soft)">
                  {film.title === null && 'It asks for its password. '}
                  {film.endsAt !== null && `To be watched until ${until(film.endsAt)}.`}
                </span>
              </a>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const until = (at: number): string => new Intl.DateTimeFormat('en-GB', { dateStyle: 'long' }).format(at);
