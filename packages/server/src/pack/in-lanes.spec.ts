import { inLanes } from './in-lanes';

const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('work in lanes', () => {
  it('does all of it, never more than so many at a time, each begun in its turn', async () => {
    const begun: number[] = [];
    let busy = 0;
    let most = 0;
    await inLanes([5, 6, 7, 8, 9], 2, async (one, i) => {
      begun.push(one);
      expect(one).toBe(i + 5);
      most = Math.max(most, ++busy);
      await turn();
      busy--;
    });
    expect([begun, most]).toEqual([[5, 6, 7, 8, 9], 2]);
    await inLanes([], 3, () => Promise.reject(new Error('never')));
  });

  it('ends with the first failure when nothing is running any more, and begins nothing after it', async () => {
    const done: number[] = [];
    const work = async (one: number): Promise<void> => {
      await turn();
      if (one === 0) throw new Error('zero');
      await turn();
      done.push(one);
    };
    await expect(inLanes([0, 1, 2, 3, 4], 2, work)).rejects.toThrow('zero');
    expect(done).toEqual([1]);
  });
});
