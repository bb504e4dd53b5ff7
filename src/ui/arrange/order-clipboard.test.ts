import { expect, it } from '@jest/globals';
import { layerId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { putSlides, slidesOn } from './order-clipboard';

/** A clipboard in miniature. */
function clipboard(): DataTransfer {
  const kept = new Map<string, string>();
  return {
    setData: (kind: string, text: string) => void kept.set(kind, text),
    getData: (kind: string) => kept.get(kind) ?? '',
  } as unknown as DataTransfer;
}

const slide = {
  ...blankSlide(2000, '#102030', () => 'a'),
  layers: [{ kind: 'words' as const, id: layerId('w'), title: 'Dusk', subtitle: 'Port Ellery', place: 'top' as const }],
};

it('slides go onto the clipboard and come back whole; other programs get their words', () => {
  const data = clipboard();
  putSlides(data, { showId: 'one', slides: [slide] });
  expect(slidesOn(data)).toEqual({ showId: 'one', slides: [slide], ownWork: true });
  expect(data.getData('text/plain')).toBe('Dusk · Port Ellery');
});
it('what another window put there is to be checked', () => {
  const data = clipboard();
  data.setData('application/x-tanager-slides', JSON.stringify({ showId: 'two', slides: [slide] }));
  expect(slidesOn(data)?.ownWork).toBe(false);
});
it.each(['', 'words', '{"showId":1,"slides":[1]}', '{"showId":"a","slides":[]}', 'null', '[]'])(
  '%j is no slides',
  (text) => {
    const data = clipboard();
    data.setData('application/x-tanager-slides', text);
    expect(slidesOn(data)).toBeNull();
  },
);
