/// <reference lib="webworker" />
// The house band in the browser: plans pieces while a person chooses, and plays one to be heard at once.
import type { BandWishes } from '../../core/sound/band/band-wishes';
import { bandFault, compose } from '../../core/sound/band/compose';
import { heardInScore, titleOfPiece } from '../../core/sound/band/piece-facts';
import { playPiece } from '../../core/sound/band/playing/play-piece';
import type { FromBand, PlannedPiece, ToBand } from './band-messages';

const scope = self as unknown as DedicatedWorkerGlobalScope;
const say = (message: FromBand, moved: Transferable[] = []) => scope.postMessage(message, moved);

scope.onmessage = ({ data }: MessageEvent<ToBand>) => {
  if (data.kind === 'plan') say({ kind: 'planned', id: data.id, piece: planned(data.wishes) });
  else play(data.wishes);
};

/** Null when nobody is left to play. */
function planned(wishes: BandWishes): PlannedPiece | null {
  if (bandFault(wishes) !== null) return null;
  const piece = compose(wishes);
  const { form } = piece;
  return {
    title: titleOfPiece(piece),
    bpm: form.bpm,
    bars: form.bars,
    beatsABar: form.beatsABar,
    sections: heardInScore(piece).sections,
    lastChordMs: form.beatsMs.at(-1)!,
  };
}

function play(wishes: BandWishes): void {
  const playing = playPiece(compose(wishes));
  let given = 0;
  for (let block = playing.next(); block; block = playing.next()) {
    const frames = block.length / 2;
    const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
    for (let frame = 0; frame < frames; frame += 1) {
      left[frame] = block[2 * frame]!;
      right[frame] = block[2 * frame + 1]!;
    }
    given += frames;
    say({ kind: 'played', left, right, share: given / playing.frameCount }, [left.buffer, right.buffer]);
  }
  say({ kind: 'over' });
}
