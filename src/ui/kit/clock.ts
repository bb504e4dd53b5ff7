/** 0:03.2 — minutes, seconds and tenths. */
export function clockTenths(ms: number): string {
  const tenths = Math.max(0, Math.floor(ms / 100 + 1e-6));
  return `${Math.floor(tenths / 600)}:${String(Math.floor(tenths / 10) % 60).padStart(2, '0')}.${tenths % 10}`;
}

/** 2:36 — minutes and seconds, or 1:02:36. */
export function clock(ms: number): string {
  const seconds = Math.max(0, Math.round(ms / 1000));
  const minutes = Math.floor(seconds / 60);
  const rest = String(seconds % 60).padStart(2, '0');
  return minutes < 60
    ? `${minutes}:${rest}`
    : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`;
}

export function megabytes(byteCount: number): string {
  return byteCount < 1e6
    ? `${Math.max(1, Math.round(byteCount / 1e3))} KB`
    : `${(byteCount / 1e6).toFixed(byteCount < 1e7 ? 1 : 0)} MB`;
}
