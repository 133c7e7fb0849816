import { TestBed } from '@angular/core/testing';
import fc from 'fast-check';
import {
  boxPlanes,
  turnMatrix,
  turnVector,
  localBounds,
  type Block,
  type Operation,
  type Stratum,
} from '@stravel/core';
import { StratumDocument } from '../../../document/stratum-document';
import { draggedExtent, handleFrame, handlesOf, stretchItem, yawTowards, type HandleFrame } from '../plan/frame';
import { StrataStack } from './strata-stack';
import { stackRows, type StackSources } from './stack-rows';

const stratum = (id: string, owner: string | null): Stratum => ({ id, name: id, role: 'structure', owner });
const block: Block = {
  id: 'b',
  name: 'b',
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([2, 3, 4]),
  sight: 'hides',
  material: 'brick',
};

function sources(over: Partial<StackSources> = {}): StackSources {
  const own = new StratumDocument('own');
  own.apply([{ document: 'own', kind: 'block', id: 'b', field: null, before: null, after: block as never }]);
  return {
    records: { base: stratum('base', null), own: stratum('own', 'l'), late: stratum('late', 'l') },
    documents: new Map([
      ['own', own],
      ['base', new StratumDocument('base')],
    ]),
    figures: [
      { stratum: 'base', memoryBytes: 100 },
      { stratum: 'own', memoryBytes: 400 },
    ],
    reach: new Map([['base', ['l', 'm', 'n']]]),
    patches: (id) => (id === 'base' ? 2 : 0),
    state: { hidden: ['base'], locked: ['own'], soloed: '' },
    active: 'own',
    ...over,
  };
}
const stack = (...ids: string[]) => ids.map((id) => ({ stratum: id, switchedOff: id === 'late' }));

describe('rows of the stack', () => {
  it('stand top first with content, share, reach and marks', () => {
    const rows = stackRows(stack('base', 'own'), sources());
    expect(
      rows.map(({ id, text, share, levels, hidden, locked, active }) => [
        id,
        text,
        share,
        levels,
        hidden,
        locked,
        active,
      ]),
    ).toEqual([
      ['own', '1 block', 1, 1, false, true, true],
      ['base', 'empty', 0.25, 3, true, false, false],
    ]);
  });

  it('say what is loading or switched off, and leave out what is gone', () => {
    expect(
      stackRows(stack('late', 'gone'), sources()).map(({ id, text, switchedOff }) => [id, text, switchedOff]),
    ).toEqual([['late', 'loading…', true]]);
    expect(stackRows([{ stratum: 'own', switchedOff: false }], sources({ documents: new Map() }))[0].text).toBe(
      'loading…',
    );
  });

  it('are shown as rows that hide, lock and become active', async () => {
    const fixture = TestBed.createComponent(StrataStack);
    fixture.componentRef.setInput('rows', stackRows(stack('base', 'own'), sources()));
    await fixture.whenStable();
    const said: string[] = [];
    fixture.componentInstance.hidden.subscribe((id) => said.push(`hide ${id}`));
    fixture.componentInstance.locked.subscribe((id) => said.push(`lock ${id}`));
    fixture.componentInstance.activated.subscribe((id) => said.push(`use ${id}`));
    const element = fixture.nativeElement as HTMLElement;
    for (const name of ['Hide own', 'Show base', 'Unlock own', 'Lock base'])
      element.querySelector<HTMLElement>(`[aria-label="${name}"]`)?.click();
    element.querySelectorAll<HTMLElement>('.name')[1].click();
    expect(said).toEqual(['hide own', 'hide base', 'lock own', 'lock base', 'use base']);
    expect(element.textContent).toContain('hidden for you');
  });
});

describe('grips', () => {
  const number = fc.double({ min: -40, max: 40, noNaN: true });
  const frameOf = (one: Block): HandleFrame => {
    const frame = handleFrame({ stratum: 's', kind: 'block', item: one }, undefined);
    if (!frame) throw new Error('an upright block has grips');
    return frame;
  };
  const applied = (one: Block, operations: readonly Operation[]): Block =>
    operations.reduce((item, { field, after }) => ({ ...item, [field as string]: after }), one);

  it('stretch a block of any yaw to where they are dragged, and leave the other side where it was', () => {
    fc.assert(
      fc.property(
        number,
        number,
        fc.integer({ min: -180, max: 180 }),
        fc.constantFrom(-1, 0, 1),
        fc.constantFrom(-1, 1),
        number,
        number,
        (x, z, yaw, sideX, sideZ, toX, toZ) => {
          const turned: Block = { ...block, position: [x, 0, z], turn: [yaw, 0, 0] };
          const frame = frameOf(turned);
          const wanted = draggedExtent(frame, { kind: 'size', x: sideX as -1 | 0 | 1, z: sideZ as -1 | 1 }, [toX, toZ]);
          const result = applied(turned, stretchItem(frame, wanted));
          const { min, max } = localBounds(result.planes);
          const m = turnMatrix(turned.turn);
          const corner = (of: Block, lx: number, lz: number) => {
            const [dx, , dz] = turnVector(m, lx, 0, lz);
            return [of.position[0] + dx, of.position[2] + dz];
          };
          // The corner that is opposite to the grip stands where it stood.
          const still = [sideX < 0 ? 1 : 0, sideZ < 0 ? 1 : 0];
          const before = corner(turned, [-1, 1][still[0]], [-2, 2][still[1]]);
          const after = corner(result, [min[0], max[0]][still[0]], [min[2], max[2]][still[1]]);
          expect(Math.hypot(after[0] - before[0], after[1] - before[1])).toBeLessThan(1e-4);
          expect(max[2] - min[2]).toBeCloseTo(wanted.high[1] - wanted.low[1], 4);
          expect(max[1]).toBeCloseTo(3, 6);
        },
      ),
    );
  });

  it('never turn a block inside out', () => {
    const { low, high } = draggedExtent(frameOf(block), { kind: 'size', x: 1, z: 0 }, [-50, 0]);
    expect(high[0] - low[0]).toBeCloseTo(0.05, 9);
  });

  it('leave room to drag what is small on the screen', () => {
    const kinds = (metresPerPixel: number) => handlesOf(frameOf(block), metresPerPixel).length;
    expect(kinds(0.01)).toBe(9);
    expect(kinds(0.1)).toBe(5);
    expect(kinds(1)).toBe(1);
  });

  it('turn the knob towards a point, in steps or freely', () => {
    const frame = frameOf(block);
    expect(yawTowards(frame, [0, -10], 15)).toBe(0);
    expect(yawTowards(frame, [-10, 0], 15)).toBe(90);
    expect(yawTowards(frame, [-10, -9], 15)).toBe(45);
    expect(yawTowards(frame, [-10, -9], 0)).toBeCloseTo(48.0128, 3);
  });
});
