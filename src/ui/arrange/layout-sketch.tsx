import { windowsOf, type Layout } from '../../core/show/layout';
import type { FrameShape } from '../../core/show/show';

/** A layout as a small drawing. */
export function LayoutSketch({ layout, count, frame }: { layout: Layout; count: number; frame: FrameShape }) {
  const heightPx = 24;
  const widthPx = Math.round((heightPx * frame.widthPx) / frame.heightPx);
  return (
    <svg
      width={widthPx}
      height={heightPx}
      viewBox={`0 0 ${widthPx} ${heightPx}`}
      aria-hidden="true"
      className="shrink-0 bg-surround fill-lamp"
    >
      {windowsOf(layout, count, frame).map((window) => (
        <rect
          key={`${window.x} ${window.y}`}
          x={(window.x - window.width / 2) * widthPx + 0.5}
          y={(window.y - window.height / 2) * heightPx + 0.5}
          width={window.width * widthPx - 1}
          height={window.height * heightPx - 1}
        />
      ))}
    </svg>
  );
}
