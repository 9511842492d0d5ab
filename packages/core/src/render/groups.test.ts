import { groupLength, groupsOf } from './groups';

describe('groups of pictures', () => {
  it('are of a second, as near as whole frames come to it', () => {
    expect(
      [
        [24000, 1001],
        [25, 1],
        [30000, 1001],
        [60000, 1001],
        [1, 2],
      ].map(([num, den]) => groupLength({ num: num!, den: den! })),
    ).toEqual([24, 25, 30, 60, 1]);
  });

  it('are all frames, each once, the last as long as is left', () => {
    expect(groupsOf(60, 25)).toEqual([
      { first: 0, count: 25 },
      { first: 25, count: 25 },
      { first: 50, count: 10 },
    ]);
    expect(groupsOf(0, 25)).toEqual([]);
  });
});
