import { describe, expect, it } from '@jest/globals';
import type { PictureFacts } from '../show/asset-facts';
import type { Mark } from '../show/mark';
import { chooseBest } from './choose';
import { stacksOf, type Candidate } from './stacks';

let state = 1;
const random = () => (state = (Math.imul(state, 1_103_515_245) + 12_345) & 0x7fffffff) / 0x7fffffff;
const digits = () => Array.from({ length: 64 }, () => Math.floor(random() * 16).toString(16)).join('');
/** The same picture with so many of its 256 signs other. */
const changed = (likeness: string, signs: number) => {
  const bits = [...likeness].map((digit) => parseInt(digit, 16));
  for (let done = 0; done < signs; done += 1) bits[Math.floor(random() * 64)]! ^= 1 << Math.floor(random() * 4);
  return bits.map((value) => value.toString(16)).join('');
};
const at = (seconds: number) => new Date(Date.UTC(2031, 5, 14, 12) + 1000 * seconds).toISOString().slice(0, 19);
const picture = (
  id: string,
  seconds: number | null,
  likeness: string,
  { sharpness = 0.8, faces = [] as number[], eyes = [] as number[], brightness = 0.5 } = {},
): Candidate<string> => ({
  id,
  takenAt: seconds === null ? null : at(seconds),
  facts: {
    kind: 'picture',
    widthPx: 6000,
    heightPx: 4000,
    hasTransparency: false,
    takenAt: null,
    camera: null,
    brightness,
    likeness,
    focus: {
      faces: faces.map((sharp, index) => ({
        left: 0.1 * index,
        top: 0.2,
        width: 0.08,
        height: 0.08,
        score: 0.9,
        sharpness: sharp,
        ...(eyes[index] !== undefined && { eyes: eyes[index] }),
      })),
      subjects: [],
      salient: null,
      sharpness,
    },
  } satisfies PictureFacts,
});
const ids = (stacks: readonly (readonly Candidate<string>[])[]) => stacks.map((stack) => stack.map((one) => one.id));
const unmarked = () => null;

describe('stacks', () => {
  it('hold what one camera takes within a second or two, however much it was moved; not what two cameras take', () => {
    const scene = digits();
    // Signs are four to a digit: so many other ones, no more and no fewer.
    const moved = (signs: number) =>
      [...scene].map((digit, place) => (parseInt(digit, 16) ^ (4 * place < signs ? 15 : 0)).toString(16)).join('');
    const by = (camera: string, id: string, seconds: number, signs: number) => {
      const one = picture(id, seconds, moved(signs));
      return { ...one, facts: { ...one.facts, camera } };
    };
    const first = by('Tern', 'first', 0, 0);
    expect(stacksOf([first, by('Tern', 'same', 1, 100)])).toHaveLength(1);
    expect(stacksOf([first, by('Tern', 'soon', 2, 92)])).toHaveLength(1);
    expect(stacksOf([first, by('Tern', 'later', 2, 100)])).toHaveLength(2);
    expect(stacksOf([first, by('Petrel', 'other', 1, 100)])).toHaveLength(2);
  });
  it('hold a burst together, its sharpest in front, and nothing that only resembles it later', () => {
    const scene = digits();
    const burst = [0.6, 0.9, 0.7].map((sharpness, index) =>
      picture(`b${index}`, index, changed(scene, 40), { sharpness }),
    );
    const later = picture('later', 300, changed(scene, 40));
    expect(ids(stacksOf([...burst, later, picture('other', 2, digits())]))).toEqual([
      ['b1', 'b2', 'b0'],
      ['other'],
      ['later'],
    ]);
  });
  it('judge people at their faces: all turned to the camera and sharp before a sharp wall', () => {
    const scene = digits();
    const stack = stacksOf([
      picture('wall', 0, scene, { sharpness: 0.95, faces: [0.2, 0.2] }),
      picture('turned', 1, changed(scene, 10), { sharpness: 0.8, faces: [0.8] }),
      picture('both', 2, changed(scene, 10), { sharpness: 0.7, faces: [0.8, 0.8] }),
    ]);
    expect(ids(stack)).toEqual([['both', 'turned', 'wall']]);
  });
  it('have nobody blink in front, as long as that can be told, and the choice says why the sharper ones are left', () => {
    const scene = digits();
    const [blink, open, unknown, tired] = [
      picture('blink', 0, scene, { sharpness: 0.9, faces: [0.9, 0.9], eyes: [0.33, 0.12] }),
      picture('open', 1, changed(scene, 10), { sharpness: 0.8, faces: [0.75, 0.75], eyes: [0.3, 0.28] }),
      picture('unknown', 2, changed(scene, 10), { sharpness: 0.8, faces: [0.7, 0.7] }),
      picture('tired', 1, changed(scene, 10), { sharpness: 0.8, faces: [0.75, 0.75], eyes: [0.24, 0.24] }),
    ] as const;
    expect(ids(stacksOf([blink, open, unknown]))).toEqual([['open', 'unknown', 'blink']]);
    // Half shut is not shut.
    expect(ids(stacksOf([blink, tired]))).toEqual([['tired', 'blink']]);
    expect(ids(stacksOf([{ ...blink, facts: picture('b', 0, scene, { faces: [0.9, 0.9] }).facts }, open]))).toEqual([
      ['blink', 'open'],
    ]);
    const { omitted } = chooseBest([blink, open, unknown], 1, unmarked);
    expect(omitted).toEqual([
      { id: 'blink', reason: { why: 'blinks', id: 'open' } },
      { id: 'unknown', reason: { why: 'alike', id: 'open' } },
    ]);
  });
  it('hold the same picture saved twice, whenever it was, and pictures of which nothing is known are alone', () => {
    const scene = digits();
    expect(ids(stacksOf([picture('a', 0, scene), picture('b', 9000, changed(scene, 6))]))).toEqual([['a', 'b']]);
    const bare = (id: string): Candidate<string> => {
      const { focus: _focus, likeness: _likeness, ...facts } = picture(id, 0, '').facts;
      return { id, takenAt: null, facts };
    };
    expect(ids(stacksOf([bare('x'), bare('y')]))).toEqual([['x'], ['y']]);
  });
});

describe('choosing', () => {
  /** 600 pictures of six hours: 80 bursts of three to six, single ones, 20 slips; one hour has two pictures. */
  const event = () => {
    state = 7;
    const all: (Candidate<string> & { burst?: number; slip?: true })[] = [];
    for (let burst = 0; burst < 80; burst += 1) {
      const scene = digits();
      const seconds = Math.floor(random() * 5 * 3600);
      const count = 3 + Math.floor(random() * 4);
      for (let shot = 0; shot < count; shot += 1)
        all.push({
          ...picture(`b${burst}-${shot}`, seconds + 0.7 * shot, changed(scene, 30), {
            sharpness: 0.7 + 0.2 * random(),
            faces: burst % 3 === 0 ? [0.7] : burst % 5 === 0 ? [0.7, 0.6, 0.8] : [],
          }),
          burst,
        });
    }
    for (let slip = 0; slip < 20; slip += 1)
      all.push({
        ...picture(`slip${slip}`, Math.floor(random() * 5 * 3600), digits(), { sharpness: 0.3 }),
        slip: true,
      });
    all.push(picture('sixth1', 5.2 * 3600, digits()), picture('sixth2', 5.4 * 3600, digits()));
    while (all.length < 600)
      all.push(
        picture(`s${all.length}`, Math.floor(random() * 5 * 3600), digits(), { sharpness: 0.65 + 0.3 * random() }),
      );
    return all;
  };

  it('reduces 600 pictures to 80: one of a burst, no slip, every hour, some with nobody, few and many people', () => {
    const all = event();
    const { chosen, omitted } = chooseBest(all, 80, unmarked);
    const byId = new Map(all.map((one) => [one.id, one]));
    const picked = chosen.map(({ id }) => byId.get(id)!);
    expect([chosen.length, chosen.length + omitted.length]).toEqual([80, 600]);
    const bursts = picked.flatMap((one) => (one.burst === undefined ? [] : [one.burst]));
    expect(new Set(bursts).size).toBe(bursts.length);
    expect(picked.filter((one) => one.slip)).toEqual([]);
    expect(new Set(picked.map((one) => one.takenAt!.slice(0, 13))).size).toBe(6);
    const faces = picked.map((one) => one.facts.focus!.faces.length);
    expect([faces.includes(0), faces.includes(1), faces.includes(3)]).toEqual([true, true, true]);
    expect(omitted.filter(({ reason }) => reason.why === 'blurred').length).toBe(20);
    // No third of the event is left almost empty.
    for (let third = 0; third < 3; third += 1)
      expect(
        picked.filter((one) => one.takenAt! >= at(third * 6000) && one.takenAt! < at((third + 1) * 6000)).length,
      ).toBeGreaterThan(15);
  });
  it('obeys a person: keeps what is kept, also two of a burst, and never takes what is left out', () => {
    const all = event();
    const marks: Record<string, Mark> = {
      'b0-0': 'keep',
      'b0-1': 'linger',
      'b1-0': 'leave-out',
      'b1-1': 'leave-out',
      'b1-2': 'leave-out',
    };
    const { chosen, omitted } = chooseBest(all, 40, (id) => marks[id] ?? null);
    const picked = new Set(chosen.map(({ id }) => id));
    expect([picked.has('b0-0'), picked.has('b0-1'), chosen.length]).toEqual([true, true, 40]);
    expect(['b1-0', 'b1-1', 'b1-2'].filter((id) => picked.has(id))).toEqual([]);
    expect(omitted.find(({ id }) => id === 'b1-0')!.reason).toEqual({ why: 'left-out' });
    expect(omitted.find(({ id }) => id === 'b0-2')!.reason).toMatchObject({ why: 'alike' });
  });
  it('takes all there are when fewer are there than wanted, and does the same again for the same', () => {
    const few = event().slice(-5);
    expect(chooseBest(few, 80, unmarked).chosen).toHaveLength(5);
    expect(chooseBest(event(), 60, unmarked)).toEqual(chooseBest(event(), 60, unmarked));
    expect(chooseBest<string>([], 10, unmarked)).toEqual({ chosen: [], omitted: [] });
  });
});
