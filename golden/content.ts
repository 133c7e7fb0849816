import {
  DEFAULT_MOVEMENT,
  DEFAULT_READINESS,
  DEFAULT_VIEW,
  EMPTY_CONTENT,
  FIELD_TYPES,
  STANDARD_DEVICES,
  boxPlanes,
  emptyRecordTables,
  patchId,
  randomStream,
  sha256Hex,
  tilesOfBitmap,
  writeKitGlb,
  type Box3,
  type CollectionContent,
  type Field,
  type FieldValue,
  type Item,
  type ItemKind,
  type ItemOfKind,
  type Json,
  type Level,
  type Patch,
  type Piece,
  type Stratum,
  type StratumContent,
  type Vector3,
} from '@stravel/core';
import { roomGrid, smallPng } from '@stravel/core/testing';

/** One item of a kind with all that it must have, and a value for each field that it may lack. */
export const SAMPLES: {
  readonly [K in ItemKind]: { readonly item: ItemOfKind[K]; readonly optional: Partial<ItemOfKind[K]> };
} = {
  block: {
    item: {
      id: 'block',
      name: 'slab',
      position: [1.5, -0.25, 2],
      turn: [30, 0, 0],
      planes: boxPlanes([2, 1, 3]),
      sight: 'decor',
      material: 'slate',
    },
    optional: {
      group: 'lamps',
      faces: [{ plane: 0, surface: 'brick', tileMetres: [1, 0.5], offsetMetres: [0.25, 0] }],
    },
  },
  placement: {
    item: { id: 'placement', piece: 'pin', position: [3.25, 0, -1], turn: [15, 5, -5], scale: [1, 2, 1] },
    optional: { group: 'lamps', values: { lit: true, note: 'by the door' } },
  },
  marker: {
    item: { id: 'marker', kind: 'pickup', position: [2, 0, 2], turn: 45 },
    optional: { entry: 'ember', values: { heat: 3 }, group: 'lamps' },
  },
  divider: { item: { id: 'divider', from: [0, 0], to: [3, 4], bottom: 0, top: 3 }, optional: { group: 'lamps' } },
  wall: {
    item: {
      id: 'wall',
      name: 'Annealing room',
      corners: [
        { id: 'c0', position: [60, 0] },
        { id: 'c1', position: [66, 0] },
        { id: 'c2', position: [66, 5] },
        { id: 'c3', position: [60, 5] },
      ],
      closed: true,
      baseMetres: 0,
      heightMetres: 3,
      thicknessMetres: 0.3,
      openings: [{ id: 'o0', corner: 'c1', offsetMetres: 2, widthMetres: 1, sillMetres: 0, headMetres: 2.1 }],
      floorMetres: 0.2,
      ceilingMetres: 0.2,
      sight: 'hides',
      material: 'brick',
    },
    optional: { group: 'lamps' },
  },
  recipe: {
    item: {
      id: 'recipe',
      name: 'Warren',
      kind: 'burrow',
      position: [40, 0, 0],
      columns: 24,
      rows: 18,
      squareMetres: 2,
      heightMetres: 3,
      openShare: 0.4,
      birthChance: 0.1,
      mostWalkers: 4,
      border: 1,
      stepLimit: 20000,
      seed: 'warren',
      material: 'chalk',
      hasMarkers: true,
    },
    optional: {},
  },
  pin: {
    item: { id: 'pin-a', recipe: 'recipe', column: 4, row: 4, columns: 2, rows: 1, hidden: false, offset: [0, 0, 1] },
    optional: {},
  },
  volume: {
    item: {
      id: 'volume',
      name: 'Bell pull',
      kind: 'bell',
      position: [0, 1, 0],
      turn: [10, 0, 0],
      shape: { form: 'box', size: [2, 2, 2] },
    },
    optional: { values: { loud: 2.5 }, group: 'lamps' },
  },
  link: {
    item: {
      id: 'link',
      emitter: 'volume',
      event: 'enter',
      who: 'any player',
      once: false,
      delaySeconds: 0.5,
      action: 'light',
      target: 'marker',
      arguments: { speed: 2 },
    },
    optional: {},
  },
  path: {
    item: {
      id: 'path',
      name: 'Round',
      form: 'curve',
      closed: true,
      knots: [
        { id: 'k0', position: [0, 0, 0], widthMetres: 1, tags: [], handle: [1, 0, 0] },
        { id: 'k1', position: [4, 0, 1], widthMetres: 1.5, tags: ['bend'], handle: null },
        { id: 'k2', position: [4, 0.5, 6], widthMetres: 1, tags: [], handle: [0, 0, -1] },
      ],
    },
    optional: { group: 'lamps' },
  },
  tileFloor: {
    item: {
      id: 'tileFloor',
      name: 'Batch',
      position: [-8, 0, -8],
      squareMetres: 1,
      columns: 4,
      rows: 3,
      squares: { '0': 'S . . G', '1': '. # . .', '2': '. . . .' },
    },
    optional: { group: 'lamps' },
  },
  mask: {
    item: {
      id: 'mask',
      name: 'Mould',
      position: [-30, 0, -30],
      pixelsPerMetre: 4,
      columns: 40,
      rows: 32,
      tiles: maskTiles(),
    },
    optional: { group: 'lamps' },
  },
  assembly: {
    item: { id: 'assembly', assembly: 'bay', position: [10, 0, 4], turn: 90 },
    optional: {
      group: 'lamps',
      patches: {
        'bay-pin': {
          kind: 'placement',
          change: 'changed',
          fields: { position: [1, 0, 1] },
          was: { position: [0, 0, 0] },
        },
      },
    },
  },
  group: {
    item: {
      id: 'lamps',
      name: 'Lamps',
      parent: null,
      category: 'light',
      colour: 'ochre',
      switchedOff: false,
      guard: '',
      aside: null,
    },
    optional: {
      parent: 'outer',
      switchedOff: true,
      guard: 'flooded',
      aside: { reason: 'after the milestone', since: '2026-03-01' },
    },
  },
  patch: {
    item: patchOf('one', 'marker', 'marker', { change: 'changed', fields: { turn: 90 }, was: { turn: 45 } }),
    optional: {},
  },
};

function patchOf(
  level: string,
  kind: Patch['kind'],
  target: string,
  rest: Pick<Patch, 'change' | 'fields' | 'was'>,
): Patch {
  return { id: patchId(level, target), level, kind, target, ...rest };
}

function maskTiles(): Record<string, string> {
  const open = new Uint8Array(40 * 32);
  for (let row = 4; row < 28; row++) open.fill(1, row * 40 + 4, row * 40 + 36);
  return { ...tilesOfBitmap({ columns: 40, rows: 32, open }) };
}

/** The sample of a kind as it is, with each field that it may lack, with all of them, and with all of them null. */
export function variants<K extends ItemKind>(kind: K): ItemOfKind[K][] {
  const { item, optional } = SAMPLES[kind];
  const one = (name: string, fields: object): ItemOfKind[K] => ({ ...item, id: `${item.id}${name}`, ...fields });
  const isPlain = kind === 'group';
  return [
    item,
    ...Object.entries(optional).map(([field, value]) => one(`-${field.toLowerCase()}`, { [field]: value as Json })),
    ...(Object.keys(optional).length > 0 ? [one('-all', optional)] : []),
    ...(Object.keys(optional).length > 0 && !isPlain
      ? [one('-null', Object.fromEntries(Object.keys(optional).map((field) => [field, null])))]
      : []),
  ];
}

const byId = (a: { readonly id: string }, b: { readonly id: string }): number =>
  a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
const LARGE: Box3 = { min: [-60, -4, -60], max: [120, 20, 80] };

/** A small collection in which every kind of record and item occurs, with and without each field that it may lack. */
export async function goldenCollection(): Promise<CollectionContent> {
  const triangle = (name: string, size: number): Parameters<typeof writeKitGlb>[0][number] => ({
    name,
    parts: [
      {
        material: { name: 'iron', colour: [0.2, 0.2, 0.2], roughness: 0.5 },
        positions: Float32Array.of(0, 0, 0, size, 0, 0, 0, size, 0),
        normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
        indices: Uint32Array.of(0, 1, 2),
      },
    ],
  });
  const glb = await writeKitGlb([triangle('pin', 1), triangle('pin.step1', 1), triangle('plate', 2)]);
  const mesh = sha256Hex(glb);
  const picture = smallPng(3, 2);
  const pictureName = sha256Hex(picture);
  const step = { triangles: 1, vertices: 3, materials: 1, bytes: 108 };
  const piece = (id: string, size: number, steps: Piece['steps']): Piece => ({
    id,
    kit: 'kit',
    name: id,
    bounds: { min: [0, 0, 0], max: [size, size, 0] },
    steps,
  });
  const rooms = roomGrid(3, 2, 'golden');
  const tables: CollectionContent['records'] = {
    ...emptyRecordTables(),
    collection: {
      collection: {
        id: 'collection',
        name: 'Golden',
        ranks: ['Part', 'Chapter'],
        view: { ...DEFAULT_VIEW, errorPixels: 2 },
        codes: { alphabet: 'ABCDEFGH', length: 4 },
        readiness: { ...DEFAULT_READINESS, fields: ['f-text'], devices: ['handheld'] },
        legend: [
          {
            code: 'S',
            name: 'start',
            colour: 'moss',
            mark: 'ring',
            mayEnter: true,
            visits: 0,
            height: 0,
            role: 'start',
          },
          {
            code: 'G',
            name: 'goal',
            colour: 'brine',
            mark: 'cross',
            mayEnter: true,
            visits: 0,
            height: 0,
            role: 'goal',
          },
        ],
        movement: { ...DEFAULT_MOVEMENT, neighbours: 8 },
        groupTemplates: [
          { name: 'Lit room', parts: [{ name: 'Lamps', parent: null, category: 'light', colour: 'ochre' }] },
        ],
      },
    },
    set: {
      works: { id: 'works', name: 'Works', parent: null, order: 'a0', binned: null },
      yard: { id: 'yard', name: 'Yard', parent: 'works', order: 'a0', binned: null },
      gone: { id: 'gone', name: 'Gone', parent: null, order: 'a1', binned: '2026-02-03T04:05:06.000Z' },
    },
    device: Object.fromEntries(STANDARD_DEVICES.map((device, i) => [device.id, { ...device, order: `a${i}` }])),
    kit: { kit: { id: 'kit', name: 'Kit', key: 'kit', mesh } },
    piece: { pin: piece('pin', 1, [step, { ...step, deviationMetres: 0.01 }]), plate: piece('plate', 2, [step]) },
    acceptance: { 'f-1': { id: 'f-1', reason: 'known', until: '2026-12-31', person: 'tester' } },
    cellGrid: {
      two: {
        id: 'two',
        sizeMetres: 16,
        origin: [-60, -60],
        loadMetres: 24,
        dropMetres: 32,
        readyMetres: 8,
        resident: ['base'],
      },
    },
    rehearsal: {
      walk: {
        id: 'walk',
        level: 'two',
        name: 'Across',
        knots: [
          [-6, -6],
          [30, 10],
          [60, 20],
        ],
        floorMetres: 0,
        speedMetresPerSecond: 4,
        device: 'handheld',
      },
    },
    register: {
      moods: { id: 'moods', name: 'Moods', help: '', order: 'a0' },
      bells: { id: 'bells', name: 'Bells', help: 'What rings', order: 'a1', kindsOf: 'volume' },
      goods: { id: 'goods', name: 'Goods', help: '', order: 'a2', kindsOf: 'marker' },
    },
    entry: {
      ember: { id: 'ember', register: 'goods', name: 'Ember', order: 'a0', values: {} },
      bell: { id: 'bell', register: 'bells', name: 'Bell', order: 'a0', values: { loudness: 3 } },
      dim: { id: 'dim', register: 'moods', name: 'Dim', order: 'a0', values: {} },
    },
    carriedValue: { score: { id: 'score', name: 'Score', start: 0, counts: 'once', order: 'a0' } },
    levelOrder: {
      one: {
        id: 'one',
        rules: [{ kind: 'start' }],
        gains: [{ value: 'score', least: 1, most: 3, field: 'whole' }],
        resets: [],
      },
      two: {
        id: 'two',
        rules: [
          { kind: 'after', levels: ['one'], need: 'all' },
          { kind: 'value', value: 'score', least: 2 },
        ],
        gains: [],
        resets: ['score'],
      },
      three: { id: 'three', rules: [{ kind: 'code' }], gains: [], resets: [] },
    },
    target: {
      box: {
        id: 'box',
        name: 'Box',
        order: 'a0',
        folder: 'box',
        meshFiles: 'perKit',
        withAllPurposes: false,
        rules: { tiling: { isOn: true, max: 12 }, pieceNames: { isOn: false, text: '[a-z ]+' } },
        counts: { marker: { isOn: true, max: 900 } },
      },
    },
    tableView: {
      plain: {
        id: 'plain',
        name: 'Plain',
        order: 'a0',
        register: null,
        join: 'all',
        conditions: [],
        sorts: [],
        hidden: [],
      },
      full: {
        id: 'full',
        name: 'Full',
        order: 'a1',
        register: 'bells',
        join: 'any',
        conditions: [{ column: 'name', test: 'contains', text: 'b' }],
        sorts: [{ column: 'name', descending: true }],
        hidden: ['loudness'],
        columns: ['name', 'loudness'],
        widths: [{ column: 'name', pixels: 120 }],
        frozen: 1,
        group: 'name',
      },
    },
  };
  Object.assign(tables.field, fields(), {
    loudness: {
      id: 'loudness',
      key: 'loudness',
      name: 'Loudness',
      type: 'number',
      choices: [],
      order: 'z',
      register: 'bells',
      low: 0,
      high: 10,
    } satisfies Field,
  });
  const values: Record<string, FieldValue> = {
    text: 'ember',
    whole: 3,
    yes: true,
    colour: '#a6452b',
    point: [1, 2, 3],
    picture: pictureName,
    next: 'two',
    mood: 'dim',
    tags: ['a', 'b'],
  };
  const level = (id: string, order: string, strata: readonly string[], over: Partial<Level> = {}): Level => ({
    id,
    name: id,
    key: id,
    set: 'yard',
    order,
    purpose: 'play',
    code: `${id.toUpperCase()}`,
    values: {},
    strata: strata.map((stratum) => ({ stratum, switchedOff: false })),
    openSky: true,
    bounds: LARGE,
    binned: null,
    ...over,
  });
  const levels = [
    level('one', 'a0', ['base', 'own'], { values }),
    level('two', 'a1', ['base', 'flat'], { values: { text: 'tide' } }),
    level('three', 'a2', ['base', 'rooms'], { openSky: false }),
    level('empty', 'a3', [], { purpose: 'test', code: '', bounds: null }),
    level('binned', 'a4', ['rooms'], { purpose: 'tool', code: '', binned: '2026-02-03T04:05:06.000Z' }),
  ];
  const strata: Stratum[] = [
    { id: 'base', name: 'Base', role: 'base', owner: null, assemblies: ['bay', 'nest'] },
    { id: 'own', name: 'Own', role: 'structure', owner: 'one' },
    { id: 'flat', name: 'Flat', role: 'dressing', owner: 'two', kit: null, assemblies: null },
    { id: 'rooms', name: 'Rooms', role: 'structure', owner: null },
    { id: 'bay', name: 'Bay', role: 'structure', owner: null, kit: 'kit', assemblies: ['nest'] },
    { id: 'nest', name: 'Nest', role: 'structure', owner: null, kit: 'kit' },
  ];
  Object.assign(tables.level, Object.fromEntries(levels.map((one) => [one.id, one])));
  Object.assign(tables.stratum, Object.fromEntries(strata.map((one) => [one.id, one])));
  return {
    records: tables,
    strata: new Map([
      ['base', baseContent()],
      ['own', ownContent()],
      ['flat', { ...EMPTY_CONTENT, placement: scattered(700) }],
      ['rooms', roomsContent(rooms)],
      [
        'bay',
        {
          ...EMPTY_CONTENT,
          placement: [at('placement', 'bay-pin', { position: [0, 0, 0] })],
          marker: [at('marker', 'bay-mark', {})],
          assembly: [{ id: 'deep', assembly: 'nest', position: [2, 0, 0], turn: 45 }],
        },
      ],
      [
        'nest',
        {
          ...EMPTY_CONTENT,
          placement: [at('placement', 'nest-pin', { piece: 'plate' })],
          block: [at('block', 'nest-block', { sight: 'hides' })],
          volume: [at('volume', 'nest-bell', {})],
        },
      ],
    ]),
    assets: new Map([
      [mesh, glb],
      [pictureName, picture],
    ]),
  };
}

function at<K extends ItemKind>(kind: K, id: string, over: Partial<ItemOfKind[K]>): ItemOfKind[K] {
  return { ...SAMPLES[kind].item, ...over, id };
}

function fields(): Record<string, Field> {
  const field = (id: string, key: string, over: Partial<Field>): [string, Field] => [
    id,
    { id, key, name: key, type: 'text', choices: [], order: id, ...over },
  ];
  return Object.fromEntries([
    field('f-text', 'text', { group: 'Story', help: 'One word', required: true, pattern: '[a-z]+', default: 'none' }),
    field('f-whole', 'whole', { type: 'whole number', low: 0, high: 9, unique: false }),
    field('f-yes', 'yes', { type: 'yes/no' }),
    field('f-colour', 'colour', { type: 'colour' }),
    field('f-point', 'point', { type: 'point' }),
    field('f-picture', 'picture', { type: 'picture' }),
    field('f-next', 'next', { type: 'level', target: 'yard' }),
    field('f-mood', 'mood', { type: 'entry', target: 'moods' }),
    field('f-tags', 'tags', { list: true, unique: true }),
    field('f-pins', 'pins', { type: 'whole number', figure: 'placements', counted: 'pin' }),
    ...FIELD_TYPES.filter((type) => !['level', 'entry'].includes(type)).map((type, i) =>
      field(`t-${i}`, `t${i}`, { type, choices: type === 'choice' ? ['low', 'high'] : [] }),
    ),
  ]);
}

function baseContent(): StratumContent {
  const all = (kind: ItemKind): Item[] => [...(variants(kind) as Item[])].sort(byId);
  const shared = Object.fromEntries(
    (Object.keys(SAMPLES) as ItemKind[]).map((kind) => [kind, all(kind)]),
  ) as unknown as StratumContent;
  const outer = { ...SAMPLES.group.item, id: 'outer', name: 'Outer' };
  const volumes = [
    at('volume', 'volume-ball', { shape: { form: 'sphere', radiusMetres: 1.5 } }),
    at('volume', 'volume-prism', {
      shape: {
        form: 'prism',
        outline: [
          [0, 0],
          [2, 0],
          [0, 2],
        ],
        heightMetres: 1,
      },
    }),
  ];
  const hidden = { change: 'hidden', fields: {}, was: {} } as const;
  const patches = [
    ...shared.patch,
    patchOf('two', 'marker', 'marker', hidden),
    patchOf('two', 'block', 'block', { change: 'changed', fields: { material: 'chalk' }, was: { material: 'slate' } }),
    patchOf('two', 'placement', 'placement-all', {
      change: 'changed',
      fields: { position: [5, 0, 5], group: null },
      was: { position: [3.25, 0, -1], group: 'lamps' },
    }),
    patchOf('three', 'placement', 'only', {
      change: 'added',
      fields: { ...at('placement', 'only', {}) } as unknown as Patch['fields'],
      was: {},
    }),
    patchOf('three', 'path', 'path', { change: 'changed', fields: { closed: false }, was: { closed: true } }),
    patchOf('three', 'path', 'way', {
      change: 'added',
      fields: { ...at('path', 'way', {}) } as unknown as Patch['fields'],
      was: {},
    }),
  ];
  const spawn = at('marker', 'spawn', { kind: 'spawn', position: [0, 0, 0] });
  return {
    ...shared,
    marker: [...shared.marker, spawn].sort(byId),
    group: [...shared.group, outer].sort(byId),
    volume: [...shared.volume, ...volumes].sort(byId),
    patch: patches.sort(byId),
  };
}

function ownContent(): StratumContent {
  const cave = at('recipe', 'cave', { position: [60, 0, 30], seed: 'cave' });
  return {
    ...EMPTY_CONTENT,
    recipe: [cave],
    pin: [
      at('pin', 'pin-cave', { recipe: 'cave' }),
      at('pin', 'pin-hidden', { recipe: 'cave', column: 9, hidden: true }),
    ],
    placement: [at('placement', 'own-pin', {})],
    path: [at('path', 'own-path', {}), at('path', 'own-path-b', { form: 'polyline', closed: false })],
    link: [at('link', 'own-link', { emitter: 'own-pin', event: 'used', target: 'own-path', arguments: {} })],
  };
}

/** Closed rooms with a spawn in the first one. */
function roomsContent({ blocks }: ReturnType<typeof roomGrid>): StratumContent {
  return {
    ...EMPTY_CONTENT,
    block: blocks.map(({ id, position, turn, planes }) => ({
      id,
      name: 'wall',
      position,
      turn,
      planes,
      sight: 'hides',
      material: 'slate',
    })),
    marker: [at('marker', 'room-spawn', { kind: 'spawn', position: [3, 0.5, 3] })],
    placement: Array.from({ length: 12 }, (_unused, i) =>
      at('placement', `room-${String(i).padStart(2, '0')}`, { position: [1 + i * 1.4, 0.5, 2 + (i % 3) * 3] }),
    ),
  };
}

function scattered(count: number): StratumContent['placement'] {
  const random = randomStream('golden flat');
  const place = (): Vector3 => [
    Math.round(random.between(-55, 110) * 1000) / 1000,
    0,
    Math.round(random.between(-55, 75) * 1000) / 1000,
  ];
  return Array.from({ length: count }, (_unused, i) =>
    at('placement', `flat-${String(i).padStart(4, '0')}`, {
      piece: i % 3 === 0 ? 'plate' : 'pin',
      position: place(),
      turn: [random.below(360), 0, 0],
    }),
  );
}
