import { inParent } from '../session/usePlacing';
import { caretAt, indexAt } from './letters';
import { snapMove, snapTurn } from './snapping';

const frame = { width: 1920, height: 1080 };
const box = { x: 100, y: 100, width: 200, height: 60 };

describe('snapping', () => {
  it('meets the middle, the thirds and the safe area with an edge or with its middle', () => {
    // Its middle to the frame's: 960 − 200 = 760.
    expect(snapMove(box, [757, 0], frame, [], 8)).toEqual({
      move: [760, 0],
      guides: [{ axis: 'x', at: 960 }],
    });
    expect(snapMove(box, [0, 262], frame, [], 8).move[1]).toBe(260);
    expect(snapMove(box, [-2, -43], frame, [], 8)).toEqual({
      move: [-4, -46],
      guides: [
        { axis: 'x', at: 96 },
        { axis: 'y', at: 54 },
      ],
    });
  });

  it('meets other layers, the nearest first, and nothing that is far', () => {
    const other = [
      [
        [500, 400],
        [700, 400],
        [700, 500],
        [500, 500],
      ],
    ] as const;
    expect(snapMove(box, [397, 0], frame, other, 8).move[0]).toBe(400);
    expect(snapMove(box, [430, 33], frame, other, 8)).toEqual({ move: [430, 33], guides: [] });
  });

  it('turns rest at eighths of a circle', () => {
    expect([2, 44, 88.26, 30, -91].map(snapTurn)).toEqual([0, 45, 90, 30, -90]);
  });

  it('a move on the picture becomes a move in a parent that is turned and scaled', () => {
    // The parent shows turned by 90° and twice as large: its x goes down, its y to the left.
    expect(inParent([0, 2, -2, 0], [0, 10])).toEqual([5, 0]);
    expect(inParent([0, 2, -2, 0], [10, 0]).map((v) => v + 0)).toEqual([0, -5]);
    expect(inParent([0, 0, 0, 0], [3, 4])).toEqual([3, 4]);
  });
});

describe('the caret', () => {
  const letter = (from: number, x: number) => ({
    from,
    to: from + 1,
    quad: [
      [x, 0],
      [x + 10, 0],
      [x + 10, 20],
      [x, 20],
    ] as const,
  });
  const letters = [letter(0, 0), letter(1, 10), letter(2, 20)];

  it('stands before the first letter, after others, and at the end', () => {
    expect(caretAt(letters, 0)).toEqual({ foot: [0, 20], top: [0, 0] });
    expect(caretAt(letters, 2)).toEqual({ foot: [20, 20], top: [20, 0] });
    expect(caretAt(letters, 9)).toEqual({ foot: [30, 20], top: [30, 0] });
    expect(caretAt([], 0)).toBeUndefined();
  });

  it('goes to the nearest side of the nearest letter', () => {
    expect(indexAt(letters, 3, 10)).toBe(0);
    expect(indexAt(letters, 8, 10)).toBe(1);
    expect(indexAt(letters, 500, 10)).toBe(3);
    expect(indexAt([], 5, 5)).toBeUndefined();
  });
});
