import type { Item, ItemKind, Operation } from '@stravel/core';
import { StratumDocument } from '../../../document/stratum-document';
import { moveRegion } from './region-move';

const stratum = (id: string, ...items: [ItemKind, Item][]): StratumDocument => {
  const document = new StratumDocument(id);
  document.apply(
    items.map(([kind, item]): Operation => ({
      document: id,
      kind,
      id: item.id,
      field: null,
      before: null,
      after: item as never,
    })),
  );
  return document;
};
const knot = (x: number) => ({ id: `k${x}`, position: [x, 0, 0] as const, widthMetres: 1, tags: [], handle: null });

describe('moving a region', () => {
  const strata = [
    stratum(
      's',
      ['marker', { id: 'in', kind: 'exit', position: [1, 0, 1], turn: 0 }],
      ['marker', { id: 'out', kind: 'exit', position: [50, 0, 1], turn: 0 }],
    ),
    stratum(
      't',
      ['path', { id: 'p', name: '', form: 'polyline', closed: false, knots: [knot(1), knot(50)] }],
      ['marker', { id: 'held', kind: 'exit', position: [2, 0, 1], turn: 0 }],
    ),
  ];
  const boundsOf = ({ stratum: of, kind, id }: { stratum: string; kind: ItemKind; id: string }) => {
    const item = strata.find((one) => one.id === of)?.item(kind, id);
    return item && 'position' in item ? { min: item.position, max: item.position } : undefined;
  };

  it('takes whole things within, over all strata, and single knots of paths; what is locked is told and stays', () => {
    const { operations, counts, locked } = moveRegion(
      strata,
      { min: [0, -1, 0], max: [10, 1, 10] },
      [1, 0, 2],
      boundsOf,
      ({ id }) => id === 'held',
    );
    expect(operations.map(({ document, id, after }) => [document, id, JSON.stringify(after)])).toEqual([
      ['s', 'in', '[2,0,3]'],
      ['t', 'p', JSON.stringify([{ ...knot(1), position: [2, 0, 2] }, knot(50)])],
    ]);
    expect([[...counts], locked.map(({ id }) => id)]).toEqual([
      [
        ['marker', 1],
        ['path', 1],
      ],
      ['held'],
    ]);
  });
});
