import type { Slide } from '../../core/show/show';
import type { Transition } from '../../core/show/transition';
import { transitionByHalvesMs } from '../../core/timing/slide-span';
import { LEAST_TRANSITION_MS } from '../../core/timing/room-for-words';
import { useShow } from '../show/show-provider';
import { Button } from '../kit/button';

/** Less is not seen in tenths of a second. */
const SEEN_MS = 50;

/** Says why a transition takes less than was asked for: half a slide is the most, and words get the time they need, unless the transition is to have it all. */
export function SeamRoom({
  slide,
  transitionMs,
  onChange,
}: {
  readonly slide: Slide;
  readonly transitionMs: number;
  readonly onChange: (next: Transition) => void;
}) {
  const before = useShow(({ show }) => show.slides[show.slides.indexOf(slide) - 1]);
  const { transition } = slide;
  if (transition.kind === 'cut') return null;
  const byHalvesMs = transitionByHalvesMs(slide, before);
  const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;
  const { overWords, ...givingWay } = transition;
  if (overWords)
    return (
      <p className="mt-2 text-soft" data-part="seam-room">
        It may take time that the words need.
        <br />
        <Button className="mt-1.5" onClick={() => onChange(givingWay)}>
          Let it give way
        </Button>
      </p>
    );
  if (byHalvesMs - transitionMs >= SEEN_MS)
    return (
      <p className="mt-2 text-soft" data-part="seam-room">
        It takes {seconds(transitionMs)} here, so that the words can
        {transitionMs > LEAST_TRANSITION_MS ? '' : ' almost'} be read.
        <br />
        <Button className="mt-1.5" onClick={() => onChange({ ...transition, overWords: true })}>
          Take {seconds(byHalvesMs)} all the same
        </Button>
      </p>
    );
  if (transitionMs >= transition.lengthMs) return null;
  return (
    <p className="mt-2 text-soft" data-part="seam-room">
      It takes {seconds(transitionMs)} here: a transition takes at most half of either slide.
    </p>
  );
}
