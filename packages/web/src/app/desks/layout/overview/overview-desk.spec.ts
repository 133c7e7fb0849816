import { TestBed } from '@angular/core/testing';
import { BakeCache, CoreError, createRunContext, createTasks, type Marker, type TaskInput } from '@stravel/core';
import type { Compute } from '../../../compute/compute';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../testing/layout-bed';
import { OverviewDesk } from './overview-desk';

const marker = (id: string, x: number, z: number): Marker => ({ id, kind: 'exit', position: [x, 0, z], turn: 0 });
/** Nine close together in the north west, and one far off. */
const markers = [
  ...Array.from({ length: 9 }, (_, i) => marker(`m${i}`, i % 3, Math.floor(i / 3))),
  marker('far', 60, 60),
];
const tasks = createTasks(new BakeCache(0));
const dense = ((_task: string, input: TaskInput<'plan-density'>) => ({
  result: Promise.resolve(tasks['plan-density'](input, createRunContext())),
  cancel: () => undefined,
})) as unknown as Compute['run'];

function overviewed(options: LayoutBedOptions): LayoutBed & { readonly overview: OverviewDesk } {
  const bed = layoutBed({ content: { marker: markers }, compute: dense, ...options });
  return { ...bed, overview: TestBed.inject(OverviewDesk) };
}
const choice = { sorts: ['kind marker'], reachMetres: 4 };

describe('the overview of a level', () => {
  it('offers the kinds that stand there, and shows where they crowd, in words', async () => {
    const { overview, opened, desk } = overviewed({ decisions: [choice] });
    await overview.choose();
    expect(opened[0]).toMatchObject({ kinds: [{ key: 'kind marker', name: 'marker', count: 10 }], categories: [] });
    expect(desk.settings()).toMatchObject({ densitySorts: ['kind marker'], densityReachMetres: 4 });
    expect([overview.shown()?.items.length, overview.isMaking()]).toEqual([10, false]);
    const [first] = overview.regions();
    expect(first.text).toMatch(/^crowded, .*: \d+ m², \d+\.\d times the average$/);
    // The crowd is within it.
    expect([first.low[0] <= 0, first.low[1] <= 0, first.high[0] >= 2, first.high[1] >= 2]).toEqual(Array(4).fill(true));
  });

  it('goes when nothing of the chosen sorts is left, and stays as it was when the choice is left', async () => {
    const { overview } = overviewed({ decisions: [choice, undefined, { ...choice, sorts: [] }] });
    await overview.choose();
    const shown = overview.shown();
    await overview.choose();
    expect(overview.shown()).toBe(shown);
    await overview.choose();
    expect([overview.shown(), overview.regions()]).toEqual([undefined, []]);
  });

  it('says why it could not be made', async () => {
    const failing = (() => ({
      result: Promise.reject(new CoreError('DENSITY_INPUT', 'density: needs a reach above 0')),
      cancel: () => undefined,
    })) as unknown as Compute['run'];
    const { overview, notices } = overviewed({ decisions: [choice], compute: failing });
    await overview.choose();
    expect([notices, overview.shown()]).toEqual([['density: needs a reach above 0'], undefined]);
  });
});
