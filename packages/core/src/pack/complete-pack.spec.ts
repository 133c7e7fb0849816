import { strFromU8 } from 'fflate';
import fc from 'fast-check';
import { blockSurface, boxPlanes } from '../geometry/block-solid';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { EMPTY_CONTENT } from '../items';
import { positionsOf } from '../mesh/kit-meshes';
import type { Block } from '../model/block';
import type { Field } from '../model/field';
import type { StratumContent } from '../model/items';
import type { RecordTables } from '../model/records';
import { emptyRecordTables } from '../records';
import { plainLevel } from '../testing/plain-level';
import { smallPng } from '../testing/small-png';
import { meshOfBlocks } from './block-meshes';
import { describedBlocks } from './described-blocks';
import { gameFile, gamePictures, picturePath } from './game-file';
import { openReferences } from './open-references';

interface Described {
  readonly id: string;
  readonly blocksView: boolean;
  readonly triangles: { readonly primitive: number; readonly firstIndex: number; readonly indexCount: number } | null;
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
const described = (blocks: readonly Block[]): Described[] => describedBlocks(blocks) as unknown as Described[];

describe('the blocks of a chunk as its level tells of them', () => {
  it('name the triangles of each in the GLB, and its planes, by hand', () => {
    const empty = block('none', { planes: boxPlanes([1, 1, 1]).map(([x, y, z]) => [x, y, z, -1] as const) });
    const blocks = [
      block('b', { position: [5, 0, 0] }),
      block('a', { material: 'clay', sight: 'decor' }),
      empty,
      block('c'),
    ];
    expect(described(blocks).map(({ id, blocksView, triangles }) => [id, blocksView, triangles])).toEqual([
      ['b', true, { primitive: 0, firstIndex: 0, indexCount: 36 }],
      ['a', false, { primitive: 1, firstIndex: 0, indexCount: 36 }],
      ['none', true, null],
      ['c', true, { primitive: 0, firstIndex: 36, indexCount: 36 }],
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
    });
    await fc.assert(
      fc.asyncProperty(fc.array(any, { minLength: 1, maxLength: 8 }), async (all) => {
        const blocks = all.map(({ position, turn, sizes, stretch, material }, i) =>
          block(`b${i}`, {
            position,
            turn,
            material,
            planes: boxPlanes(sizes).map(
              ([x, y, z, d]) => [x * stretch, y * stretch, z * stretch, d * stretch] as const,
            ),
          }),
        );
        const mesh = meshOfBlocks('chunk', blocks);
        if (!mesh) throw new Error('no mesh');
        const { meshes } = await readGlb(await writeGlb(mesh));
        for (const [i, { triangles, planes }] of described(blocks).entries()) {
          if (!triangles) throw new Error('no triangles');
          const part = meshes.pieces[0].parts[triangles.primitive];
          expect(meshes.materials[part.material ?? -1].name).toBe(blocks[i].material);
          const positions = positionsOf(part);
          const corners = part.indices.slice(triangles.firstIndex, triangles.firstIndex + triangles.indexCount);
          expect(corners.length / 3).toBe(blockSurface(blocks[i]).triangles);
          const reached = new Set<number>();
          for (const corner of corners) {
            const at = [0, 1, 2].map((k) => positions[corner * 3 + k]);
            const heights = planes.map(([x, y, z, d]) => x * at[0] + y * at[1] + z * at[2] - d);
            expect(Math.max(...heights)).toBeLessThan(1e-3);
            heights.forEach((height, plane) => height > -1e-3 && reached.add(plane));
          }
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
