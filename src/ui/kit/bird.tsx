/** Tanager's own sign: a red bird with a black wing. */
export function Bird({ className }: { className?: string }) {
  return (
    <svg viewBox="0 0 32 32" className={className} aria-hidden="true">
      <path
        d="M3 23c3-1 5-3 6-6 1-5 5-8 10-8 1.500 0 3 .3 4 1l6 1.500-5 2.500c0 6-5 10-11 10-2 0-4-.3-5.500-1L3 25z"
        className="fill-red"
      />
      <path d="M9 19c4-4 9-5 13-3-1 4-5 6.500-9.500 6.500C10.500 22.500 9.500 21 9 19z" className="fill-bird-wing" />
      <path d="M2 27l8-5 2 1.500-7 4.500z" className="fill-bird-wing" />
      <circle cx="22" cy="11.800" r=".9" className="fill-bird-wing" />
    </svg>
  );
}
