import { EMPTY_CONTENT, ITEM_KINDS, boxPlanes, type ItemKind, type StratumContent } from '@stravel/core';
import { StratumDocument } from '../../document/stratum-document';
import { ALL_GROUPS } from '../../document/unseen-groups';
import { boundsOfItem } from '../item-shapes';
import { PickIndex } from '../pick-index';
import type { PlateColours } from '../plate-colours';
import { drawMarks } from '../plate-marks';
import { roughBounds } from '../rough-bounds';
import { plateKind } from '.';

const CONTENT: StratumContent = {
  ...EMPTY_CONTENT,
  block: [
    {
      id: 'block',
      name: 'slab',
      position: [0, 0, 0],
      turn: [30, 0, 0],
      planes: boxPlanes([4, 1, 2]),
      sight: 'hides',
      material: 'slate',
    },
  ],
  placement: [{ id: 'rack', piece: 'rack', position: [9, 0, 0], turn: [45, 10, 0], scale: [1, 2, 1] }],
  marker: [{ id: 'spawn', kind: 'spawn', position: [0, 20, 0], turn: 0 }],
  divider: [
    { id: 'low', from: [0, 0], to: [4, 4], bottom: 0, top: 3 },
    { id: 'high', from: [4, 0], to: [0, 4], bottom: 30, top: 33, group: 'lamps' },
  ],
  volume: [
    {
      id: 'well',
      name: 'well',
      kind: '',
      position: [20, 0, 0],
      turn: [0, 0, 0],
      shape: { form: 'sphere', radiusMetres: 3 },
    },
  ],
  path: [
    {
      id: 'way',
      name: 'way',
      form: 'polyline',
      closed: false,
      knots: [
        { id: 'a', position: [0, 0, 10], widthMetres: 1, tags: [], handle: null },
        { id: 'b', position: [10, 0, 10], widthMetres: 1, tags: [], handle: null },
      ],
    },
  ],
  tileFloor: [{ id: 'floor', name: '', position: [40, 0, 0], squareMetres: 2, columns: 3, rows: 2, squares: {} }],
  mask: [{ id: 'mask', name: '', position: [60, 0, 0], pixelsPerMetre: 2, columns: 8, rows: 4, tiles: {} }],
  group: [
    {
      id: 'lamps',
      name: 'lamps',
      parent: null,
      category: '',
      colour: 'none',
      switchedOff: false,
      guard: '',
      aside: null,
    },
  ],
};
const pieces = {
  rack: {
    id: 'rack',
    kit: 'k',
    name: 'rack',
    bounds: { min: [-1, 0, -1] as const, max: [1, 1, 1] as const },
    steps: [],
  },
};

function documentOf(content: StratumContent): StratumDocument {
  const document = new StratumDocument('st');
  document.fill(content);
  return document;
}

describe('kinds on the plate', () => {
  const document = documentOf(CONTENT);
  const picks = new PickIndex(
    () => [document],
    () => pieces,
  );

  it('give all at once the bounds that they give one by one', () => {
    const found = picks.everything();
    expect(found.map(({ kind, id }) => `${kind} ${id}`).sort()).toEqual(
      (['block', 'placement', 'marker', 'divider', 'volume', 'path', 'tileFloor', 'mask'] as const)
        .flatMap((kind) => CONTENT[kind].map(({ id }) => `${kind} ${id}`))
        .sort(),
    );
    for (const { kind, id, bounds } of found) expect(boundsOfItem(document, kind, id, pieces)).toEqual(bounds);
  });

  it('leave out what is hidden, and what stands nowhere has no bounds', () => {
    const lampsHidden = new PickIndex(
      () => [document],
      () => pieces,
      () => 0,
      () => ({ hidden: new Set(['lamps']), alone: '' }),
    );
    expect(lampsHidden.everything().map(({ id }) => id)).toEqual(
      picks.everything().flatMap(({ id }) => (id === 'high' ? [] : [id])),
    );
    for (const kind of ['recipe', 'pin', 'link', 'group', 'patch'] satisfies ItemKind[])
      expect(plateKind<ItemKind>(kind).bounds({} as never, { pieces, laidBounds: () => [] })).toBeUndefined();
  });

  it('are taken by a point as each is shaped: a sphere by its rim, a path by its line, a floor anywhere', () => {
    const at = (x: number, z: number): string[] => picks.atPlan(x, z, -1, 40, 0.1).map(({ id }) => id);
    expect([at(20, 0), at(23, 0), at(5, 10), at(5, 10.5), at(43, 1), at(61, 1)]).toEqual([
      [],
      ['well'],
      ['way'],
      [],
      ['floor'],
      ['mask'],
    ]);
    // A marker is wanted before a divider, and that before a block; the other divider runs along the other diagonal.
    expect([at(0.1, 0.1), at(0.1, 3.9)]).toEqual([['spawn', 'low', 'block'], ['high']]);
  });

  it('carry what is set down on them where they are solid', () => {
    expect(ITEM_KINDS.filter((kind) => plateKind(kind).carries)).toEqual(['block', 'placement', 'wall']);
    expect(picks.surfaceBelow([0, 9, 0], new Set())).toBeCloseTo(1, 9);
    expect(picks.surfaceBelow([20, 9, 0], new Set())).toBeUndefined();
  });

  it('take a wall by its segments on the plan and by its bodies along a look, and never by the room inside', () => {
    const corners = [
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ].map(([x, z], i) => ({ id: `c${i}`, position: [x, z] as const }));
    const room = {
      id: 'room',
      name: 'room',
      corners,
      closed: true,
      baseMetres: 0,
      heightMetres: 3,
      thicknessMetres: 0.5,
    };
    const slabs = { openings: [], floorMetres: 0.2, ceilingMetres: 0, sight: 'hides', material: 'brick' } as const;
    const walled = documentOf({ ...EMPTY_CONTENT, wall: [{ ...room, ...slabs }] });
    const index = new PickIndex(
      () => [walled],
      () => ({}),
    );
    const at = (x: number, z: number): string[] => index.atPlan(x, z, -1, 9, 0.1).map(({ id }) => id);
    expect([at(3, 0), at(3, 2), at(6.2, 2)]).toEqual([['room'], [], ['room']]);
    // The floor carries, the walls stop a look from the side, and one above the room meets neither.
    expect(index.surfaceBelow([3, 2, 2], new Set())).toBeCloseTo(0, 9);
    expect(index.alongRay([3, 1, 2], [1, 0, 0]).map(({ id }) => id)).toEqual(['room']);
    expect(index.alongRay([-9, 4, 2], [1, 0, 0])).toEqual([]);
  });

  it('frame by where blocks, placements and markers stand', () => {
    expect(roughBounds([document])).toEqual({ min: [0, 0, 0], max: [9, 20, 0] });
    expect(roughBounds([documentOf(EMPTY_CONTENT)])).toBeUndefined();
  });

  it('are ghosted each by its own height, whatever was drawn before it', () => {
    const drawn: [string, number][] = [];
    const context = new Proxy({} as Record<string, unknown>, {
      get: (target, name: string) =>
        target[name] ??
        (name === 'setLineDash'
          ? (dash: number[]) => dash[0] === 9 && drawn.push(['divider', target['globalAlpha'] as number])
          : () => undefined),
    }) as unknown as CanvasRenderingContext2D;
    const labels = drawMarks(
      { view: 'plan', context, colours: {} as PlateColours, at: (x, _y, z) => [x, z], scale: 1 },
      [document],
      ALL_GROUPS,
      { bottom: 0, top: 4 },
      [],
      { isSelected: () => false, hasGhosts: true },
    );
    // The spawn stands high above, the first divider does not.
    expect(drawn).toEqual([
      ['divider', 1],
      ['divider', 0.25],
    ]);
    expect(labels.map(({ text, alpha }) => [text, alpha])).toEqual([
      ['tile floor', 1],
      ['spawn', 0.25],
      ['well', 1],
      ['way', 1],
    ]);
  });
});
