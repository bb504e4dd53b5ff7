/** A thread that is caught: in two loops for what is grave, in one for what is not. */
export function SnagSign({ grave, size = 14 }: { grave: boolean; size?: number }) {
  return (
    <svg
      aria-hidden="true"
      width={size * 1.5}
      height={size}
      viewBox="0 0 24 16"
      fill="none"
      stroke="currentColor"
      strokeWidth={grave ? 2 : 1.5}
      strokeLinecap="round"
      className="shrink-0"
    >
      {grave ? (
        <path d="M1 13h5.5c4 0 5-10 2-10s-2 10 2.5 10h1c4 0 5-10 2-10s-2 10 2.500 10H23" />
      ) : (
        <path d="M1 13h8c5 0 6-10 2.600-10S9.500 13 14.500 13H23" />
      )}
    </svg>
  );
}
