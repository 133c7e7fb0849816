import { LaterUpdates } from './later-updates';

function slow(done: number[]): (one: number) => void {
  return (one) => {
    const end = performance.now() + 2;
    while (performance.now() < end);
    done.push(one);
  };
}

describe('later updates', () => {
  it('draw few at once and many in slices, each once, with what is added meanwhile', async () => {
    const done: number[] = [];
    let told = 0;
    const updates = new LaterUpdates(slow(done), () => told++, 5);
    updates.add([1, 2, 3]);
    expect([done, updates.isUnderWay, told]).toEqual([[1, 2, 3], false, 0]);
    updates.add(Array.from({ length: 20 }, (_unused, i) => i));
    expect([done.length > 3, done.length < 23, updates.isUnderWay]).toEqual([true, true, true]);
    updates.add([0, 19, 100]);
    while (updates.isUnderWay) await new Promise((resolve) => setTimeout(resolve));
    // 0 had been drawn before it changed again, 19 had not.
    expect(done.slice(3).filter((one) => one === 0)).toHaveLength(2);
    expect(done.filter((one) => one === 19)).toHaveLength(1);
    expect(done).toContain(100);
    expect([[...updates.left], told > 0]).toEqual([[], true]);
  });

  it('are few again once what waits is small, and forget all when they stop', async () => {
    const done: number[] = [];
    const updates = new LaterUpdates(slow(done), () => undefined, 5);
    updates.add(Array.from({ length: 20 }, (_unused, i) => i));
    updates.stop();
    const count = done.length;
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect([done.length, [...updates.left], updates.isUnderWay]).toEqual([count, [], false]);
    updates.add([7]);
    expect(done.at(-1)).toBe(7);
  });
});
