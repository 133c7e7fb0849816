import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { sha256Hex, type Block, type Placement } from '@stravel/core';
import { snapPoint, type SnapInput } from '../plan/snapping';
import { copiedText, isCopiedText, readCopied } from '../editing/copied-text';
import { readSelections } from './kept-selections';

const placement: Placement = {
  id: 'p',
  piece: 'crate',
  position: [1.25, 0, -2],
  turn: [15, 0, 0],
  scale: [1, 1, 1],
  group: 'g',
  values: { note: 'hot' },
};
const copied = copiedText([{ stratum: 's', kind: 'placement', item: placement }], () => 'Oak crate');

describe('copying', () => {
  it('keeps places and own values exactly, and leaves the group behind', () => {
    expect(isCopiedText(copied)).toBe(true);
    const { content, count, leftOut } = readCopied(copied, () => true);
    expect(content.placement).toEqual([
      { id: 'p', piece: 'crate', position: [1.25, 0, -2], turn: [15, 0, 0], scale: [1, 1, 1], values: { note: 'hot' } },
    ]);
    expect([count, leftOut]).toEqual([1, 0]);
  });

  it('reads a text with things of every kind, whole and bare, as it did', () => {
    const text = readFileSync(join(__dirname, '../../../../../../../golden/copied.txt'), 'utf8');
    const { content, count } = readCopied(text, () => true);
    expect([count, sha256Hex(JSON.stringify(content)).slice(0, 16)]).toEqual([43, '609e57e6c7d5195f']);
  });

  it('from another collection leaves out placements of pieces that this one lacks, by name', () => {
    expect(readCopied(copied, () => false)).toMatchObject({ count: 0, missing: ['Oak crate'], leftOut: 1 });
  });

  it.each([
    ['{"format":"stravel-items"', /paste/],
    ['{"format":"stravel-items","version":9}', /its version is 9/],
    ['{"format":"stravel-items","version":1}', /it has no content/],
    ['{"format":"stravel-items","version":1,"content":{"dragon":[]}}', /"dragon" cannot be pasted/],
    ['{"format":"stravel-items","version":1,"content":{"block":{}}}', /content.block is not a list/],
    [
      '{"format":"stravel-items","version":1,"content":{"marker":[{"id":"m","kind":"spawn","position":[0,0,"x"],"turn":0}]}}',
      /position/,
    ],
  ])('refuses %s', (text, why) => {
    expect(() => readCopied(text, () => true)).toThrow(why);
  });
});

describe('kept selections', () => {
  it('are read as far as they can be', () => {
    const ref = { stratum: 's', kind: 'block', id: 'b' };
    expect(readSelections(JSON.stringify({ Gates: [ref], Bad: [{ ...ref, kind: 'dragon' }], Worse: 7 }))).toEqual({
      Gates: [ref],
    });
    expect([readSelections(null), readSelections('{'), readSelections('[]')]).toEqual([{}, {}, {}]);
  });
});

describe('snapping', () => {
  const square: Block['position'][] = [
    [0, 0, 0],
    [4, 0, 0],
    [4, 0, 4],
    [0, 0, 4],
  ];
  const item = {
    stratum: 's',
    kind: 'block' as const,
    id: 'b',
    bounds: { min: [0, 0, 0] as const, max: [4, 0, 4] as const },
  };
  const input = (x: number, z: number, targets: SnapInput['targets']): SnapInput => ({
    at: [x, z],
    metresPerPixel: 0.1,
    targets,
    near: () => [item],
    facesOf: () => [Float64Array.from(square.flat())],
    pivotOf: () => [2, 0, 2],
  });

  it('takes the nearest corner or pivot, else the nearest edge, else nothing', () => {
    expect(snapPoint(input(3.5, 0.3, ['corners', 'edges']))).toEqual([4, 0]);
    expect(snapPoint(input(2.5, 0.3, ['corners', 'edges']))).toEqual([2.5, 0]);
    expect(snapPoint(input(2.3, 1.6, ['pivots']))).toEqual([2, 2]);
    expect(snapPoint(input(2, 3, ['corners', 'edges']))).toBeUndefined();
    expect(snapPoint(input(4, 0, ['surfaces']))).toBeUndefined();
  });
});
