import { describe, expect, it } from '@jest/globals';
import { draggedSides } from './crop-drag';

const START = { left: 0.1, top: 0.2, right: 0.3, bottom: 0.2 };

describe('dragging a crop', () => {
  it('moves one side and leaves the others', () => {
    expect(draggedSides(START, 'left', 0.1, 0.5, null)).toEqual({ ...START, left: 0.2 });
    expect(draggedSides(START, 'bottom right', -0.1, -0.1, null)).toEqual({
      ...START,
      right: 0.4,
      bottom: expect.closeTo(0.3, 9),
    });
  });
  it('stops at the picture’s border and before nothing is left', () => {
    expect(draggedSides(START, 'left', -5, 0, null).left).toBe(0);
    expect(draggedSides(START, 'left', 5, 0, null).left).toBeCloseTo(0.69, 9);
  });
  it('moves all of it without changing its size, as far as there is picture', () => {
    expect(draggedSides(START, 'all', 0.2, -0.5, null)).toEqual({
      left: expect.closeTo(0.3, 9),
      right: expect.closeTo(0.1, 9),
      top: 0,
      bottom: 0.4,
    });
  });
  it.each(['left', 'right', 'top', 'bottom', 'top left', 'top right', 'bottom left', 'bottom right'] as const)(
    'keeps its shape at the %s',
    (handle) => {
      for (const [dx, dy] of [
        [0.05, 0.07],
        [-0.9, -0.9],
        [0.3, -0.2],
      ] as const) {
        const sides = draggedSides(START, handle, dx, dy, 1.25);
        expect((1 - sides.left - sides.right) / (1 - sides.top - sides.bottom)).toBeCloseTo(1.25, 6);
        for (const side of Object.values(sides)) expect(side).toBeGreaterThanOrEqual(-1e-9);
      }
    },
  );
  it('a corner leaves the corner across where it is', () =>
    expect(draggedSides(START, 'bottom right', -0.2, -0.2, 1)).toMatchObject({ left: 0.1, top: 0.2 }));
});
