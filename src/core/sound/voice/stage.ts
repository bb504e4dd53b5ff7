/** One step of a chain through which sound goes piece by piece. What comes out is as long as what went in, and not shifted against it. */
export interface Stage {
  /** Takes the next samples of one channel and gives back as many as are done; they may lag behind. */
  push(samples: Float32Array): Float32Array;
  /** The rest. */
  finish(): Float32Array;
}

export const NOTHING = new Float32Array(0);

/** Stages one after the other. */
export function chain(stages: readonly Stage[]): Stage {
  return {
    push: (samples) => stages.reduce((done, stage) => stage.push(done), samples),
    finish() {
      let rest: Float32Array = NOTHING;
      for (const stage of stages) rest = joined(stage.push(rest), stage.finish());
      return rest;
    },
  };
}

export function joined(...parts: readonly Float32Array[]): Float32Array {
  const there = parts.filter((part) => part.length > 0);
  if (there.length <= 1) return there[0] ?? NOTHING;
  const all = new Float32Array(there.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of there) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
