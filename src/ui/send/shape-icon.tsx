import { clsx } from 'clsx';

interface ShapeIconProps {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Its longer side on the screen. */
  readonly size?: number;
  readonly filled?: boolean;
}

/** The shape of a frame, small. */
export function ShapeIcon({ widthPx, heightPx, size = 34, filled = false }: ShapeIconProps) {
  const scale = size / Math.max(widthPx, heightPx);
  return (
    <span
      aria-hidden="true"
      className={clsx('block rounded-[3px] border-[1.5px] border-ink', filled && 'bg-ink')}
      style={{ width: Math.round(widthPx * scale), height: Math.round(heightPx * scale) }}
    />
  );
}
