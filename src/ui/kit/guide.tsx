import type { GuideLine } from '../../core/guides/guides';

/** A line that something was laid onto while it was dragged, and why; within an SVG of that size. */
export function Guide({
  line: { along, at, why },
  size,
}: {
  readonly line: GuideLine;
  readonly size: { readonly widthPx: number; readonly heightPx: number };
}) {
  const place = along === 'x' ? at * size.widthPx : at * size.heightPx;
  return (
    <g data-part="guide" data-why={why} className="pointer-events-none">
      <line
        x1={along === 'x' ? place : 0}
        x2={along === 'x' ? place : size.widthPx}
        y1={along === 'y' ? place : 0}
        y2={along === 'y' ? place : size.heightPx}
        className="stroke-red"
        strokeDasharray="5 4"
      />
      <text
        x={along === 'x' ? Math.min(size.widthPx - 4, place + 5) : 5}
        y={along === 'y' ? Math.max(12, place - 5) : 13}
        className="fill-lamp text-xs"
        style={{ paintOrder: 'stroke', stroke: '#171513', strokeWidth: 3 }}
      >
        {why}
      </text>
    </g>
  );
}
