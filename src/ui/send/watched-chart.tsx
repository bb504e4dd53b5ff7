'use client';

import { Chart, Filler, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { Watched } from '../../core/screening/watched';
import { clock } from '../kit/clock';

Chart.register(LineController, LineElement, PointElement, LinearScale, Filler, Tooltip);

/** How many of those who began were still watching, over the film. */
export function WatchedChart({ watched, lengthMs }: { watched: Watched; lengthMs: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { curve } = watched;
  const said = JSON.stringify(curve);
  useEffect(() => {
    const styles = getComputedStyle(canvas.current!);
    const colour = (name: string) => styles.getPropertyValue(name).trim();
    const [soft, rule, slate] = ['--color-soft', '--color-rule', '--color-slate'].map(colour);
    const font = { family: styles.fontFamily, size: 12 };
    const parts = JSON.parse(said) as number[];
    const chart = new Chart(canvas.current!, {
      type: 'line',
      data: {
        datasets: [
          {
            data: parts.map((share, index) => ({ x: ((index + 0.5) / parts.length) * lengthMs, y: 100 * share })),
            borderColor: slate!,
            backgroundColor: `${slate}33`,
            fill: true,
            pointRadius: 0,
            borderWidth: 2,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        parsing: false,
        interaction: { mode: 'nearest', axis: 'x', intersect: false },
        scales: {
          x: {
            type: 'linear',
            min: 0,
            max: lengthMs,
            grid: { color: rule! },
            ticks: { color: soft!, font, callback: (value) => clock(Number(value)), maxTicksLimit: 6 },
          },
          y: {
            min: 0,
            max: 100,
            grid: { color: rule! },
            ticks: { color: soft!, font, callback: (value) => `${value} %`, stepSize: 25 },
          },
        },
        plugins: {
          tooltip: {
            callbacks: {
              title: ([item]) => clock(item?.parsed.x ?? 0),
              label: ({ parsed }) => `${Math.round(parsed.y ?? 0)} % were watching`,
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [said, lengthMs]);
  const at = (share: number) => Math.round(100 * (curve[Math.floor(share * (curve.length - 1))] ?? 0));
  return (
    <div className="relative h-[130px]">
      <canvas
        ref={canvas}
        role="img"
        data-part="watched-chart"
        aria-label={`Watching, of those who began: ${at(0)} % at the beginning, ${at(0.25)} % after a quarter, ${at(0.5)} % in the middle, ${at(0.75)} % after three quarters, ${at(1)} % at the end`}
      />
    </div>
  );
}
