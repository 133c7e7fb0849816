import { strFromU8 } from 'fflate';
import fc from 'fast-check';
import { blockSurface, boxPlanes } from '../geometry/block-solid';
import { faceAxes } from '../geometry/face-texture';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { EMPTY_CONTENT } from '../items';
import { positionsOf } from '../mesh/kit-meshes';
import type { Block, BlockFace } from '../model/block';
import type { Field } from '../model/field';
import type { AssemblyUse, StratumContent } from '../model/items';
import type { Stratum } from '../model/stratum';
import type { Vector3 } from '../model/vector';
import { levelContent } from '../layout/level-content';
import { packedLists } from '../items/stored';
import type { RecordTables } from '../model/records';
import { emptyRecordTables } from '../records';
import { plainLevel } from '../testing/plain-level';
import { smallPng } from '../testing/small-png';
import { meshOfBlocks } from './block-meshes';
import { blockRanges } from './block-ranges';
import { describedBlocks } from './described-blocks';
import { gameFile, gamePictures, picturePath } from './game-file';
import { openReferences } from './open-references';

interface Described {
  readonly id: string;
  readonly blocksView: boolean;
  readonly triangles: readonly {
    readonly material: string;
    readonly primitive: number;
    readonly firstIndex: number;
    readonly indexCount: number;
  }[];
  readonly faces?: unknown;
  readonly planes: readonly (readonly [number, number, number, number])[];
}
const block = (id: string, over: Partial<Block> = {}): Block => ({
  id,
  name: id,
  position: [0, 0, 0],
  turn: [0, 0, 0],
  planes: boxPlanes([2, 1, 4]),
  sight: 'hides',
  material: 'brick',
  ...over,
});
const described = (blocks: readonly Block[]): Described[] =>
  describedBlocks(blocks, blockRanges(blocks)) as unknown as Described[];

const asPacked = ({ surface, ...face }: BlockFace): unknown => ({ ...face, material: surface });

describe('the blocks of a chunk as its level tells of them', () => {
  it('lay out a surface along and up each face, by hand', () => {
    const turned = block('w', {
      position: [10, 0, 0],
      turn: [90, 0, 0],
      planes: boxPlanes([4, 3, 1]),
      faces: [{ plane: 4, surface: 'glass', tileMetres: [2, 1.5], offsetMetres: [-2, 0] }],
    });
    const mesh = meshOfBlocks('chunk', blockRanges([turned]));
    const glass = mesh?.pieces[0].parts[mesh.materials.findIndex(({ name }) => name === 'glass')];
    const [positions, , textures] = glass?.attributes.map(({ values }) => values) ?? [];
    const corners = Array.from({ length: 4 }, (_one, i) => [
      ...[...positions.slice(i * 3, i * 3 + 3)].map((value) => Math.round(value * 1000) / 1000),
      ...[...textures.slice(i * 2, i * 2 + 2)].map((value) => Math.round(value * 1000) / 1000 + 0),
    ]);
    // Plane 4 looks along its own +Z, which is +X after the turn: its left end, from outside, is at the greater z.
    expect(corners.sort((a, b) => b[2] - a[2] || a[1] - b[1])).toEqual([
      [10.5, 0, 2, 0, 0],
      [10.5, 3, 2, 0, -2],
      [10.5, 0, -2, 2, 0],
      [10.5, 3, -2, 2, -2],
    ]);
    // A face of a plane that the block has not counts for nothing, and of two of one plane the last.
    const odd = [0, 4, 4, 9].map(
      (plane, i) => ({ plane, surface: `s${i}`, tileMetres: [1, 1], offsetMetres: [0, 0] }) as const,
    );
    const [told] = described([block('odd', { faces: odd })]);
    expect(told.faces).toEqual([asPacked(odd[0]), asPacked(odd[2])]);
    expect(told.triangles.map(({ material }) => material)).toEqual(['brick', 's0', 's2']);
    // Floors are laid out as on the plan: along X, up −Z.
    const floor = faceAxes([0, 1, 0]);
    expect([floor.along, floor.up].map((axis) => axis.map((value) => value + 0))).toEqual([
      [1, 0, 0],
      [0, 0, -1],
    ]);
    expect(faceAxes([1, 0, 0]).along.map((value) => value + 0)).toEqual([0, 0, -1]);
  });

  it('name the triangles of each in the GLB, and its planes, by hand', () => {
    const empty = block('none', { planes: boxPlanes([1, 1, 1]).map(([x, y, z]) => [x, y, z, -1] as const) });
    const blocks = [
      block('b', { position: [5, 0, 0] }),
      block('a', { material: 'clay', sight: 'decor' }),
      empty,
      block('c'),
    ];
    expect(described(blocks).map(({ id, blocksView, triangles }) => [id, blocksView, triangles])).toEqual([
      ['b', true, [{ material: 'brick', primitive: 0, firstIndex: 0, indexCount: 36 }]],
      ['a', false, [{ material: 'clay', primitive: 1, firstIndex: 0, indexCount: 36 }]],
      ['none', true, []],
      ['c', true, [{ material: 'brick', primitive: 0, firstIndex: 36, indexCount: 36 }]],
    ]);
    // Two metres wide about x = 5.
    expect(described(blocks)[0].planes.slice(0, 2)).toEqual([
      [1, 0, 0, 6],
      [-1, 0, 0, -4],
    ]);
  });

  it('give back each block out of the GLB, whatever is beside it: corners on its planes, and as many triangles', async () => {
    const size = fc.double({ min: 0.2, max: 5, noNaN: true });
    const any = fc.record({
      position: fc.tuple(
        fc.integer({ min: -500, max: 500 }),
        fc.integer({ min: -5, max: 5 }),
        fc.integer({ min: -500, max: 500 }),
      ),
      turn: fc.tuple(fc.integer({ min: -180, max: 180 }), fc.integer({ min: -80, max: 80 }), fc.constant(0)),
      sizes: fc.tuple(size, size, size),
      // Normals of any length.
      stretch: fc.constantFrom(0.25, 1, 3),
      material: fc.constantFrom('brick', 'clay', 'ash'),
      faces: fc.uniqueArray(
        fc.record({
          plane: fc.integer({ min: 0, max: 5 }),
          surface: fc.constantFrom('brick', 'glass', 'tar'),
          tileMetres: fc.tuple(fc.constantFrom(0.5, 2), fc.constantFrom(1, 3)),
          offsetMetres: fc.tuple(fc.constantFrom(0, 0.75), fc.constantFrom(0, -2)),
        }),
        { maxLength: 4, selector: ({ plane }) => plane },
      ),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(any, { minLength: 1, maxLength: 8 }), async (all) => {
        const blocks = all.map(({ position, turn, sizes, stretch, material, faces }, i) =>
          block(`b${i}`, {
            position,
            turn,
            material,
            ...(faces.length > 0 ? { faces } : {}),
            planes: boxPlanes(sizes).map(
              ([x, y, z, d]) => [x * stretch, y * stretch, z * stretch, d * stretch] as const,
            ),
          }),
        );
        const own = all.map(({ faces }) => faces);
        const mesh = meshOfBlocks('chunk', blockRanges(blocks));
        if (!mesh) throw new Error('no mesh');
        const { meshes } = await readGlb(await writeGlb(mesh));
        for (const [i, { triangles, planes, faces }] of described(blocks).entries()) {
          expect(faces).toEqual(own[i].length > 0 ? own[i].map(asPacked) : undefined);
          const reached = new Set<number>();
          let count = 0;
          for (const { material, primitive, firstIndex, indexCount } of triangles) {
            const part = meshes.pieces[0].parts[primitive];
            expect(meshes.materials[part.material ?? -1].name).toBe(material);
            const positions = positionsOf(part);
            const textures = part.attributes.find(({ semantic }) => semantic === 'TEXCOORD_0')?.values ?? [];
            count += indexCount / 3;
            for (let t = firstIndex; t < firstIndex + indexCount; t += 3) {
              const corners = [...part.indices.slice(t, t + 3)];
              const at = corners.map((corner) => [0, 1, 2].map((k) => positions[corner * 3 + k]));
              const heights = planes.map(([x, y, z, d]) => at.map((p) => x * p[0] + y * p[1] + z * p[2] - d));
              expect(Math.max(...heights.flat())).toBeLessThan(1e-3);
              // It lies on one plane, and has the surface of that.
              const plane = heights.findIndex((each) => each.every((height) => height > -1e-3));
              reached.add(plane);
              const face = own[i].find((one) => one.plane === plane);
              expect(material).toBe(face?.surface ?? blocks[i].material);
              // Along and up are at right angles, in metres, and a picture is not mirrored from outside.
              const [wide, high] = face?.tileMetres ?? [1, 1];
              const flat = corners.map((corner) => [textures[corner * 2] * wide, -textures[corner * 2 + 1] * high]);
              const side = (from: number, to: number, points: readonly (readonly number[])[]): number[] =>
                points[to].map((value, k) => value - points[from][k]);
              const [u, v] = [side(0, 1, flat), side(0, 2, flat)];
              const [p, q] = [side(0, 1, at), side(0, 2, at)];
              const dot = (m: readonly number[], n: readonly number[]): number =>
                m.reduce((sum, x, k) => sum + x * n[k], 0);
              expect(dot(u, u)).toBeCloseTo(dot(p, p), 1);
              expect(dot(v, v)).toBeCloseTo(dot(q, q), 1);
              expect(dot(u, v)).toBeCloseTo(dot(p, q), 1);
              const area = u[0] * v[1] - u[1] * v[0];
              const cross = [p[1] * q[2] - p[2] * q[1], p[2] * q[0] - p[0] * q[2], p[0] * q[1] - p[1] * q[0]];
              expect(area).toBeCloseTo(Math.hypot(...cross), 1);
            }
          }
          expect(count).toBe(blockSurface(blocks[i]).triangles);
          expect(reached.size).toBe(6);
        }
      }),
      { numRuns: 40 },
    );
  });
});

const level = (id: string, over: Partial<ReturnType<typeof plainLevel>> = {}) => ({
  ...plainLevel({ name: id }),
  id,
  key: id,
  set: 'hall',
  ...over,
});
const field = (key: string, type: Field['type'], over: Partial<Field> = {}): Field => ({
  id: `field-${key}`,
  key,
  name: key,
  type,
  choices: [],
  order: 'a',
  ...over,
});
const records: RecordTables = {
  ...emptyRecordTables(),
  collection: {
    collection: {
      id: 'collection',
      name: 'C',
      ranks: ['Part'],
      legend: [],
      movement: { neighbours: 8, upSteps: 1, downSteps: 2, mayFall: true },
    },
  },
  set: {
    works: { id: 'works', name: 'Works', parent: null, order: 'a', binned: null },
    hall: { id: 'hall', name: 'Hall', parent: 'works', order: 'b', binned: null },
    other: { id: 'other', name: 'Other', parent: null, order: 'c', binned: null },
  },
  level: {
    one: level('one', { values: { next: 'three', map: 'picture-a' } }),
    two: level('two'),
    three: level('three', { set: 'other' }),
    four: level('four', { set: 'other', values: { map: 'picture-of-four' } }),
  },
  field: {
    next: field('next', 'level'),
    map: field('map', 'picture'),
    home: field('home', 'level', { register: 'moods' }),
    sign: field('sign', 'picture', { register: 'moods', list: true }),
  },
  register: { moods: { id: 'moods', name: 'Moods', help: '', order: 'a', kindsOf: 'volume' } },
  entry: {
    calm: {
      id: 'calm',
      register: 'moods',
      name: 'Calm',
      order: 'a',
      values: { home: 'one', sign: ['picture-b', 'picture-a'] },
    },
  },
  levelOrder: {
    one: {
      id: 'one',
      rules: [{ kind: 'after', levels: ['two', 'four'], need: 'any' }],
      gains: [{ value: 'score', least: 0, most: 3 }],
      resets: ['score'],
    },
  },
  carriedValue: { score: { id: 'score', name: 'Score', start: 1, counts: 'once', order: 'a' } },
};

describe('the file of what levels refer to', () => {
  const levels = [{ level: records.level['one'], path: 'levels/one.json' }];
  interface Game {
    readonly sets: { readonly id: string }[];
    readonly levels: { readonly id: string; readonly file: string | null; readonly rules: unknown }[];
    readonly registers: { readonly entries: { readonly id: string }[]; readonly kindsOf: string }[];
    readonly fields: { readonly id: string; readonly of: string | null; readonly list: boolean }[];
    readonly movement: unknown;
    readonly pictures: unknown;
  }
  const read = (): Game =>
    JSON.parse(
      strFromU8(gameFile({ records, levels, pictures: new Map([['picture-a', 'pictures/picture-a.png']]) }).bytes),
    ) as Game;

  it('has every level that a rule or a value of a packed one leads to, with no file where it is not packed', () => {
    expect(read().levels.map(({ id, file }) => [id, file])).toEqual([
      ['one', 'levels/one.json'],
      ['four', null],
      ['three', null],
      ['two', null],
    ]);
    expect(read().levels[0].rules).toEqual([{ kind: 'after', levels: ['two', 'four'], need: 'any' }]);
  });

  it('has sets with those above them, registers, fields, carried values and how one moves', () => {
    const game = read();
    expect(game.sets.map(({ id }) => id)).toEqual(['works', 'hall', 'other']);
    expect(game.registers).toMatchObject([{ kindsOf: 'volume', entries: [{ id: 'calm', name: 'Calm' }] }]);
    expect(game.fields.find(({ id }) => id === 'field-sign')).toMatchObject({ of: 'moods', list: true });
    expect(game).toMatchObject({
      carriedValues: [{ id: 'score', start: 1, counts: 'once' }],
      movement: { neighbours: 8, mayFall: true },
    });
    expect(read()).toEqual(game);
  });

  it('names the pictures of packed levels and of entries, each once', () => {
    expect(gamePictures({ records, levels })).toEqual(['picture-a', 'picture-b']);
    expect(picturePath('ab', smallPng(2, 2))).toBe('pictures/ab.png');
    expect(() => picturePath('ab', Uint8Array.of(1, 2, 3))).toThrow('the picture ab is neither PNG, JPEG nor WebP');
  });

  it('is whole for a collection with nothing in it', () => {
    const empty = JSON.parse(
      strFromU8(gameFile({ records: emptyRecordTables(), levels: [], pictures: new Map() }).bytes),
    ) as Game;
    expect([empty.sets, empty.levels, empty.registers, empty.fields]).toEqual([[], [], [], []]);
  });
});

describe('assemblies in a packed level', () => {
  it('are told with those within them, by ids that their objects begin with, and by name in the game’s file', () => {
    const use = (id: string, assembly: string, position: Vector3, turn: number): AssemblyUse => ({
      id,
      assembly,
      position,
      turn,
    });
    const gate: StratumContent = {
      ...EMPTY_CONTENT,
      block: [block('post')],
      assembly: [use('lamp', 'lamp-set', [1, 0, 0], 0)],
    };
    const lamp: StratumContent = { ...EMPTY_CONTENT, block: [block('bulb')] };
    const own: Stratum = { id: 'own', name: 'Own', role: 'base', owner: 'one', assemblies: ['gate-set'] };
    const content = levelContent(
      level('one', { strata: [{ stratum: 'own', switchedOff: false }] }),
      [
        {
          stratum: own,
          content: {
            ...EMPTY_CONTENT,
            assembly: [use('north', 'gate-set', [10, 0, 0], 90), use('lost', 'none', [0, 0, 0], 0)],
          },
        },
      ],
      new Map([
        ['gate-set', gate],
        ['lamp-set', lamp],
      ]),
    );
    const told = packedLists(content.strata.map(({ content: items, uses = [] }) => ({ ...items, assembly: uses })))[
      'assemblies'
    ];
    const quarter = [0, Math.SQRT1_2, 0, Math.SQRT1_2].map((value) => expect.closeTo(value, 12) as number);
    expect(told).toEqual([
      { id: 'north', assembly: 'gate-set', translation: [10, 0, 0], rotation: quarter },
      { id: 'north.lamp', assembly: 'lamp-set', translation: [10, 0, expect.closeTo(-1, 12)], rotation: quarter },
    ]);
    expect(content.strata[0].content.block.map(({ id }) => id)).toEqual(['north.lamp.bulb', 'north.post']);
    const named = {
      ...records,
      stratum: {
        own,
        'gate-set': { id: 'gate-set', name: 'Gate', role: 'base', owner: null, assemblies: ['lamp-set'] } as const,
        'lamp-set': { id: 'lamp-set', name: 'Lamp', role: 'base', owner: null } as const,
      },
    };
    const game = JSON.parse(
      strFromU8(
        gameFile({ records: named, levels: [{ level: content.level, path: 'levels/one.json' }], pictures: new Map() })
          .bytes,
      ),
    ) as { readonly assemblies: unknown };
    expect(game.assemblies).toEqual([
      { id: 'gate-set', name: 'Gate' },
      { id: 'lamp-set', name: 'Lamp' },
    ]);
  });
});

describe('open references', () => {
  const open = (content: Partial<StratumContent>): string[] =>
    openReferences(
      { level: records.level['one'], strata: [{ stratum: 's', content: { ...EMPTY_CONTENT, ...content } }] },
      records,
    ).map(({ subject }) => subject);
  const link = (target: string): StratumContent['link'][number] => ({
    id: 'l',
    emitter: 'v',
    event: 'enter',
    who: '',
    once: false,
    delaySeconds: 0,
    action: 'open',
    target,
    arguments: {},
  });
  const volume: StratumContent['volume'][number] = {
    id: 'v',
    name: '',
    kind: 'calm',
    position: [0, 0, 0],
    turn: [0, 0, 0],
    shape: { form: 'sphere', radiusMetres: 1 },
  };
  const group: StratumContent['group'][number] = {
    id: 'g',
    name: 'G',
    parent: null,
    category: '',
    colour: 'none',
    switchedOff: false,
    guard: '',
    aside: null,
  };

  it('are none where what is meant is packed: a block, a group, an entry', () => {
    expect(open({ link: [link('b')], volume: [volume], block: [block('b', { group: 'g' })], group: [group] })).toEqual(
      [],
    );
    expect(open({ link: [link('g')], volume: [volume], group: [group] })).toEqual([]);
  });

  it('are found wherever an item has one', () => {
    expect(open({ link: [link('gone')], volume: [volume] })).toEqual(['one.l.target']);
    expect(open({ link: [link('b')], block: [block('b')] })).toEqual(['one.l.emitter']);
    expect(open({ volume: [{ ...volume, kind: 'storm', group: 'gone' }] })).toEqual(['one.v.group', 'one.v.kind']);
    expect(open({ marker: [{ id: 'm', kind: 'pickup', position: [0, 0, 0], turn: 0, entry: 'gone' }] })).toEqual([
      'one.m.entry',
    ]);
    expect(
      open({ placement: [{ id: 'p', piece: 'gone', position: [0, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] }] }),
    ).toEqual(['one.p.piece']);
    expect(open({ group: [{ ...group, parent: 'gone' }] })).toEqual(['one.g.parent']);
  });
});
