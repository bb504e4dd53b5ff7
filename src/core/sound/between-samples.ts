/** Taps on each side of a place between two samples. */
export const TAPS = 6;
/** Three places between two samples: four times the rate, as ITU-R BS.1770-4 asks of a meter of true peaks. Windowed sinc, the place between taps `TAPS - 1` and `TAPS`. */
export const BETWEEN_SAMPLES = [0.25, 0.5, 0.75].map((share) =>
  Float64Array.from({ length: 2 * TAPS }, (_, tap) => {
    const away = tap - (TAPS - 1) - share;
    const sinc = Math.sin(Math.PI * away) / (Math.PI * away);
    return sinc * (0.5 + 0.5 * Math.cos((Math.PI * away) / (TAPS + 0.5)));
  }),
);

/** Between two samples music rises to this many times the larger of them at most; a sine at a quarter of the sampling rate, between its peaks, to 1.41 times. */
export const RISES_AT_MOST = 1.6;
