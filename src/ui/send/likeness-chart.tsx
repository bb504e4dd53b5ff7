'use client';

import { Chart, LinearScale, LogarithmicScale, PointElement, ScatterController, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { formatOf } from '../../core/film/film-formats';
import { purposeTitle } from '../../core/film/purposes/purposes';
import type { FilmRow } from '../../server/films/film-row';

Chart.register(ScatterController, PointElement, LinearScale, LogarithmicScale, Tooltip);

/** Films that can be set against each other. */
export function compared(films: readonly FilmRow[]): FilmRow[] {
  return films.filter((film) => film.state === 'ready' && film.likeness !== null && film.byteCount !== null);
}

/** How large films are against how good they look; the same figures stand in the table. */
export function LikenessChart({ films }: { films: readonly FilmRow[] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const points = compared(films).map((film) => ({
    x: Number(((film.byteCount! / 1e6 / film.lengthMs) * 60_000).toPrecision(3)),
    y: Number((100 * film.likeness!).toFixed(2)),
    name: `${purposeTitle(film.spec.purpose)}, ${film.spec.widthPx} × ${film.spec.heightPx}, ${formatOf(film.spec.format).name}`,
  }));
  const said = JSON.stringify(points);
  useEffect(() => {
    const styles = getComputedStyle(canvas.current!);
    const colour = (name: string) => styles.getPropertyValue(name).trim();
    const [ink, soft, rule, slate] = ['--color-ink', '--color-soft', '--color-rule', '--color-slate'].map(colour);
    const font = { family: styles.fontFamily, size: 12 };
    const chart = new Chart(canvas.current!, {
      type: 'scatter',
      data: {
        datasets: [
          {
            data: JSON.parse(said) as { x: number; y: number; name: string }[],
            pointRadius: 5,
            pointHoverRadius: 7,
            backgroundColor: slate!,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: {
            type: 'linear',
            beginAtZero: true,
            title: { display: true, text: 'MB a minute', color: soft!, font },
            grid: { color: rule! },
            ticks: { color: soft!, font },
          },
          y: {
            max: 100,
            title: { display: true, text: 'likeness, %', color: soft!, font },
            grid: { color: rule! },
            ticks: { color: soft!, font },
          },
        },
        plugins: {
          tooltip: {
            backgroundColor: ink!,
            callbacks: {
              label: ({ raw }) => {
                const { name, x, y } = raw as { name: string; x: number; y: number };
                return `${name}: ${x} MB a minute, ${y} %`;
              },
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [said]);
  return (
    <figure className="rounded-xl border border-rule bg-card p-4">
      <figcaption className="mb-2 font-semibold">Size against quality</figcaption>
      <div className="relative h-[150px]">
        <canvas
          ref={canvas}
          role="img"
          aria-label={`Size against quality: ${points.map(({ name, x, y }) => `${name}: ${x} MB a minute, ${y} %`).join('; ')}`}
          data-part="likeness-chart"
        />
      </div>
    </figure>
  );
}
