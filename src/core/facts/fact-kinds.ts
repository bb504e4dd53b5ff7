/**
 * What is found out about a file’s content, by kind. A better method is a new version: it makes a new fact beside the old one, and shows and films that were
 * made with the old one go on with it until somebody asks for the new.
 */
export const FACT_KINDS = {
  /** Size, length, colour, what the camera noted: `AssetFacts`. Version 1 did not note tones, bars, captions and likeness of every picture; version 2 not what is RAW or HDR; version 3 not how many frames a second clips have; version 4 not how pictures were rated elsewhere; version 5 not where they were taken; version 6 neither the colours of pictures nor the style of songs. */
  basics: { version: 7 },
  /** What a picture is about: `FocusFacts`. Version 1 did not see that pictures lie on their side; version 2 not that they hang askew; version 3 neither whether eyes are open nor what clips are about; version 4 neither by things that stand that pictures lie, nor that a hand moved sideways; version 5 not by the sky. */
  focus: { version: 6 },
  /** What is heard in a sound, or in a clip: `ListeningFacts`. Version 1 did not look for phrases; version 2 heard beats on where a song only rings; version 3 through a last chord that is held. */
  listening: { version: 4 },
} as const;

export type FactKind = keyof typeof FACT_KINDS;

/** The version of each kind’s method that a show was made with; a kind that is not named goes by the latest. */
export type MethodPins = Readonly<Partial<Record<FactKind, number>>>;

/** Today’s methods, for shows that begin today. */
export const CURRENT_METHODS: MethodPins = {
  basics: FACT_KINDS.basics.version,
  focus: FACT_KINDS.focus.version,
  listening: FACT_KINDS.listening.version,
};

/**
 * Which of the versions there are is used: the pinned one, else the nearest before it, else the nearest after it; without a pin the latest.
 *
 * @returns null when there is none
 */
export function usedVersion(there: readonly number[], pinned: number | undefined): number | null {
  if (there.length === 0) return null;
  if (pinned === undefined) return Math.max(...there);
  const before = there.filter((version) => version <= pinned);
  return before.length > 0 ? Math.max(...before) : Math.min(...there);
}
