import { SlicedWork } from './sliced-work';

/** Steps that each take a while. */
function* steps(count: number, done: number[], from = 0): Generator<void> {
  for (let i = 0; i < count; i++) {
    const end = performance.now() + 3;
    while (performance.now() < end);
    done.push(from + i);
    yield;
  }
}

describe('work in slices', () => {
  it('is done a part at once and the rest later, and says when it is done', async () => {
    const done: number[] = [];
    let told = 0;
    const work = new SlicedWork(() => told++);
    work.begin(steps(20, done));
    expect([done.length > 0, done.length < 20, work.isUnderWay, told]).toEqual([true, true, true, 0]);
    while (work.isUnderWay) await new Promise((resolve) => setTimeout(resolve));
    expect(done).toHaveLength(20);
    expect(told).toBeGreaterThan(0);
  });

  it('is finished at once when it must be, and given up for other work', async () => {
    const done: number[] = [];
    const work = new SlicedWork();
    work.begin(steps(20, done));
    work.begin(steps(10, done, 100));
    work.finish();
    expect([work.isUnderWay, done.filter((i) => i >= 100).length, done.filter((i) => i < 100).length < 20]).toEqual([
      false,
      10,
      true,
    ]);
    const count = done.length;
    await new Promise((resolve) => setTimeout(resolve, 30));
    expect(done).toHaveLength(count);
  });
});
