'use client';

import { clsx } from 'clsx';
import { useEffect, useRef } from 'react';
import { mainLayerOf, wordsOf, type Show } from '../../core/show/show';
import { pictureUrl } from '../show/file-url';

/** All slides as small pictures, to go to any of them. */
export function SlideShelf({ show, at, onGo }: { show: Show; at: number; onGo: (slide: number) => void }) {
  const here = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    here.current?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [at]);
  return (
    <nav aria-label="Slides" className="shrink-0 overflow-x-auto border-t border-white/10 px-5 py-2.5 scroll-thin">
      <ol className="flex gap-1.5">
        {show.slides.map((slide, index) => {
          const main = mainLayerOf(slide);
          const name = wordsOf(slide)?.title;
          return (
            <li key={slide.id} className="shrink-0">
              <button
                ref={index === at ? here : undefined}
                type="button"
                data-part="shelf-slide"
                aria-label={`${index + 1}: go to this slide${name ? `, ${name}` : ''}`}
                aria-current={index === at ? 'true' : undefined}
                onClick={() => onGo(index)}
                className={clsx(
                  'relative block h-[54px] w-[88px] overflow-hidden border-2',
                  index === at ? 'border-red' : 'border-transparent',
                )}
              >
                {main && (
                  // eslint-disable-next-line @next/next/no-img-element
                  <img
                    src={pictureUrl(show.id, main.assetId, 160, show.posters?.[main.assetId])}
                    alt=""
                    loading="lazy"
                    className="size-full object-cover"
                  />
                )}
                <span className="tabular absolute right-0.5 bottom-0 bg-black/70 px-1 text-xs">
                  {index + 1}
                  {slide.waits && ' ‖'}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}
