import { TestBed } from '@angular/core/testing';
import { CoreError, type Level, type Overlap, type Placement } from '@stravel/core';
import type { Compute } from '../../../compute/compute';
import { layoutBed, type LayoutBed, type LayoutBedOptions } from '../testing/layout-bed';
import { BLOCK, CRATE, PLACEMENT, documentOf } from '../testing/placed';
import { ContextDesk } from './context-desk';
import type { OverlapsData } from './overlaps-sheet';

const level = (id: string, ...strata: string[]): Level =>
  ({
    id,
    name: id,
    set: 'set',
    order: id,
    binned: null,
    strata: strata.map((stratum) => ({ stratum, switchedOff: false })),
  }) as unknown as Level;
const twice: Placement = { ...PLACEMENT, id: 'q' };
const options: LayoutBedOptions = {
  content: { block: [BLOCK], placement: [PLACEMENT, twice] },
  others: [documentOf('hall-own', { block: [{ ...BLOCK, id: 'other' }] })],
  tables: {
    piece: { crate: CRATE },
    level: { level: level('level', 'st'), hall: level('hall', 'hall-own', 'st', 'lost'), bare: level('bare') },
    set: { set: { id: 'set', name: 'Set', parent: null, order: 'a0', binned: null } },
    stratum: {
      'hall-own': { id: 'hall-own', name: 'Hall', role: 'structure', owner: 'hall' },
      lost: { id: 'lost', name: 'Lost', role: 'structure', owner: 'hall' },
    },
  },
};

async function beside(over: LayoutBedOptions = {}): Promise<LayoutBed & { readonly context: ContextDesk }> {
  const bed = layoutBed({ ...options, ...over });
  const context = TestBed.inject(ContextDesk);
  bed.desk.put({ otherLevels: ['hall', 'level', 'gone'] });
  TestBed.tick();
  await bed.settled();
  return { ...bed, context };
}
const LOST = 'The stratum Lost could not be loaded. gone';
/** A worker that finds what it is told to find, and notes what it was asked. */
function finding(asked: string[][], overlaps: readonly Overlap[] | Error): Compute['run'] {
  const run = (
    _task: string,
    { blocks }: { readonly blocks: readonly { readonly block: { readonly id: string } }[] },
  ) => {
    asked.push(blocks.map(({ block }) => block.id));
    const result = overlaps instanceof Error ? Promise.reject(overlaps) : Promise.resolve(overlaps);
    return { result, cancel: () => undefined };
  };
  return run as unknown as Compute['run'];
}

describe('levels beside the open one', () => {
  it('show what is theirs alone, and say what could not be loaded', async () => {
    const { context, notices } = await beside();
    expect(context.shown().map(({ id }) => id)).toEqual(['hall']);
    expect(context.strata().map(({ id }) => id)).toEqual(['hall-own']);
    expect(notices).toEqual([LOST]);
  });

  it('are chosen among those that have something', async () => {
    const { context, desk, opened } = await beside({ decisions: [['hall'], undefined] });
    await context.choose();
    expect(opened[0]).toMatchObject({ levels: [{ id: 'hall' }], chosen: ['hall', 'level', 'gone'] });
    expect(desk.settings().otherLevels).toEqual(['hall']);
    await context.choose();
    expect(desk.settings().otherLevels).toEqual(['hall']);
  });

  it('are searched for what fills the same space, each block once, and lead to it', async () => {
    const asked: string[][] = [];
    const bed = await beside({ compute: finding(asked, []) });
    const { context, desk, opened, commits, document } = bed;
    await context.check();
    expect([asked, context.checking()]).toEqual([[['b', 'other']], false]);
    const { same, goTo, removeSame, levelName } = opened[0] as OverlapsData;
    expect([levelName('hall'), levelName('gone')]).toEqual(['hall', 'gone']);
    goTo('st', 'b');
    expect(desk.selected()).toMatchObject([{ stratum: 'st', kind: 'block', item: { id: 'b' } }]);
    // What stands in another level is nobody's to select here.
    goTo('hall-own', 'other');
    expect(desk.selected()).toHaveLength(1);
    expect(same).toHaveLength(1);
    removeSame(same[0]);
    await bed.settled();
    expect([commits[0].label, [...document.tables.placement.keys()]]).toEqual(['remove duplicates', ['p']]);
  });

  it('say why a search failed, and nothing when it was cancelled', async () => {
    for (const [code, told] of [
      ['OVERLAPS_MANY', [LOST, 'too many']],
      ['CANCELLED', [LOST]],
    ] as const) {
      TestBed.resetTestingModule();
      const bed = await beside({ compute: finding([], new CoreError(code, 'too many')) });
      bed.notices.length = 0;
      await bed.context.check();
      expect([bed.notices, bed.opened, bed.context.checking()]).toEqual([told, [], false]);
    }
  });
});
