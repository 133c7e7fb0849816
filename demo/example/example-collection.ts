import {
  PLAIN_TARGET,
  buildChains,
  createRunContext,
  emptyRecordTables,
  meshBounds,
  ordersBetween,
  readGlb,
  sha256Hex,
  writeKitGlb,
  type CellGrid,
  type CollectionContent,
  type Level,
  type LevelOrder,
} from '@stravel/core';
import { StratumBuilder } from '../builder';
import { owned, type BuiltStratum } from '../built-levels';
import { MATERIALS, box, lathe } from '../meshes';

const KIT = 'kit-example';
const CRATE = 'piece-crate';
const BUOY = 'piece-buoy';
const CRATE_PAIR = 'crate-pair';

/** The jetty in cells of 32 m; its far end is loaded from within the bell house, wherever one is. */
export const JETTY_GRID: CellGrid = {
  id: 'long-jetty',
  sizeMetres: 32,
  origin: [-16, -16],
  loadMetres: 20,
  dropMetres: 40,
  readyMetres: 8,
  resident: [],
  volumeRules: [{ volume: 'long-jetty-events-bell-house', cells: ['6,0', '5,0'] }],
};

/** The collection of the example pack: three small levels with everything that a reader has to understand, invented. */
export async function exampleCollection(): Promise<CollectionContent> {
  const content: CollectionContent = { records: emptyRecordTables(), strata: new Map(), assets: new Map() };
  const { records } = content;
  records.collection['collection'] = { id: 'collection', name: 'Example', ranks: ['Part'] };
  records.set['set-harbour'] = { id: 'set-harbour', name: 'Harbour', parent: null, order: 'a', binned: null };
  records.target['example'] = {
    ...PLAIN_TARGET,
    id: 'example',
    name: 'Example',
    order: 'a',
    placements: 'millimetre',
  };
  await addKit(content);
  addValues(content);
  const pair = new StratumBuilder(CRATE_PAIR).place(CRATE, [-0.7, 0, 0]).place(CRATE, [0.7, 0, 0], 20);
  add(content, {
    stratum: { id: CRATE_PAIR, name: 'Crate pair', role: 'dressing', owner: null, kit: KIT },
    content: pair.build(),
  });
  cistern(content);
  jetty(content);
  vault(content);
  return content;
}

async function addKit({ records, assets }: CollectionContent): Promise<void> {
  const crate = box(MATERIALS.timber, [-0.5, 0, -0.5], [0.5, 1, 0.5]);
  const buoy = lathe(
    MATERIALS.salt,
    [
      [0, 0],
      [0.7, 0.5],
      [0.8, 1],
      [0.3, 1.6],
      [0, 2],
    ],
    24,
  );
  const whole = await writeKitGlb([
    { name: 'crate', parts: [crate] },
    { name: 'buoy', parts: [buoy] },
  ]);
  const { glb, chains } = await buildChains({ glb: whole, names: ['crate', 'buoy'] }, createRunContext());
  const { meshes } = await readGlb(glb);
  const mesh = sha256Hex(glb);
  records.kit[KIT] = { id: KIT, name: 'Example kit', key: 'example-kit', mesh };
  for (const { name, steps } of chains) {
    const found = meshes.pieces.find((piece) => piece.name === name);
    if (found)
      records.piece[`piece-${name}`] = { id: `piece-${name}`, kit: KIT, name, bounds: meshBounds(found), steps };
  }
  assets.set(mesh, glb);
}

function addValues({ records }: CollectionContent): void {
  const orders = ordersBetween(null, null, 2);
  records.carriedValue['shards'] = { id: 'shards', name: 'Shards', start: 0, counts: 'once', order: orders[0] };
  records.carriedValue['heat'] = { id: 'heat', name: 'Heat', start: 5, counts: 'each time', order: orders[1] };
  records.register['beings'] = { id: 'beings', name: 'Beings', help: '', order: 'a', kindsOf: 'marker' };
  records.entry['gull'] = { id: 'gull', register: 'beings', name: 'Gull', order: 'a', values: {} };
  records.register['areas'] = { id: 'areas', name: 'Areas', help: '', order: 'b', kindsOf: 'volume' };
  records.entry['trigger'] = { id: 'trigger', register: 'areas', name: 'Trigger', order: 'a', values: {} };
  records.field['field-mood'] = {
    id: 'field-mood',
    key: 'mood',
    name: 'Mood',
    type: 'choice',
    choices: ['ash', 'brine'],
    order: 'a',
  };
}

function add({ records, strata }: CollectionContent, { stratum, content }: BuiltStratum): string {
  records.stratum[stratum.id] = stratum;
  strata.set(stratum.id, content);
  return stratum.id;
}

function addLevel(
  content: CollectionContent,
  level: Pick<Level, 'id' | 'name' | 'order' | 'code' | 'openSky' | 'bounds'>,
  order: Omit<LevelOrder, 'id'>,
  strata: readonly BuiltStratum[],
): void {
  content.records.level[level.id] = {
    key: level.id,
    set: 'set-harbour',
    purpose: 'play',
    values: { mood: 'brine' },
    binned: null,
    ...level,
    strata: strata.map((one) => ({ stratum: add(content, one), switchedOff: false })),
  };
  content.records.levelOrder[level.id] = { id: level.id, ...order };
}

/** Three rooms in a row, closed, the doors off the middle: what is seen from where. */
function cistern(content: CollectionContent): void {
  const id = 'cistern';
  const structure = owned(id, 'Structure', 'structure', (b) => {
    b.wall('floor', -16, -5, 16, 5, -0.4, 0, 'slate').wall('ceiling', -16, -5, 16, 5, 4, 4.4, 'slate');
    b.wall('north', -16, -5.4, 16, -5, 0, 4).wall('south', -16, 5, 16, 5.4, 0, 4);
    b.wall('west', -16.4, -5.4, -16, 5.4, 0, 4).wall('east', 16, -5.4, 16.4, 5.4, 0, 4);
    for (const [x, door] of [
      [-5, -2.5],
      [5, 2.5],
    ] as const)
      b.wall('between', x - 0.2, -5, x + 0.2, door - 0.7, 0, 4)
        .wall('between', x - 0.2, door + 0.7, x + 0.2, 5, 0, 4)
        .wall('lintel', x - 0.2, door - 0.7, x + 0.2, door + 0.7, 2.2, 4);
  });
  const surfaced = {
    ...structure,
    content: {
      ...structure.content,
      block: structure.content.block.map((block) =>
        block.name === 'floor'
          ? {
              ...block,
              faces: [{ plane: 2, surface: 'wet slate', tileMetres: [2, 2], offsetMetres: [0.5, 0] } as const],
            }
          : block,
      ),
    },
  };
  addLevel(
    content,
    { id, name: 'Cistern', order: 'a', code: 'CIST', openSky: false, bounds: null },
    {
      rules: [{ kind: 'start' }],
      gains: [{ value: 'shards', least: 0, most: 8 }],
      resets: [],
    },
    [
      surfaced,
      owned(id, 'Dressing', 'dressing', (b) =>
        b
          .group('store', { name: 'Store', category: 'look', colour: 'ochre' }, (g) =>
            g.place(CRATE, [-13, 0, -3], 15).place(CRATE, [-12.5, 0, 3], 200, 1.25).use(CRATE_PAIR, [-9, 0, 3.2], 90),
          )
          .place(BUOY, [0, 0, 0])
          .place(CRATE, [12, 0, 3.1234], 33)
          .box('sill', [9, 0, -3], [1.5, 0.8, 1.5], 30, 'brick', 'decor'),
      ),
      owned(id, 'Events', 'events', (b) =>
        b
          .marker('spawn', [-14, 0, 0], 270)
          .marker('exit', [14, 0, 0])
          .volume('drip', 'Drip', 'trigger', [0, 0, 0], [4, 3, 4], { drops: 3, note: 'cold' })
          .volume('gate', 'Gate', 'trigger', [10, 0, 0], [2, 3, 2])
          .link('drip', 'enter', 'open', 'gate')
          .path('Round', 'curve', 0, [
            [-14, 0],
            [0, -2.5],
            [14, 0],
          ]),
      ),
    ],
  );
}

/** A jetty over 224 m, cut into cells. */
function jetty(content: CollectionContent): void {
  const id = 'long-jetty';
  addLevel(
    content,
    {
      id,
      name: 'Long Jetty',
      order: 'b',
      code: 'JETTY',
      openSky: true,
      bounds: { min: [-20, -3, -20], max: [212, 12, 20] },
    },
    {
      rules: [
        { kind: 'after', levels: ['cistern'], need: 'all' },
        { kind: 'value', value: 'shards', least: 6 },
      ],
      gains: [
        { value: 'shards', least: 0, most: 8 },
        { value: 'heat', least: -3, most: 3 },
      ],
      resets: [],
    },
    [
      owned(id, 'Structure', 'structure', (b) => {
        b.wall('sea bed', -20, -20, 212, 20, -3, -2, 'salt');
        for (let x = 0; x < 200; x += 40) b.box('plank', [x + 20, 0, 0], [39.8, 0.2, 3], 0, 'timber');
      }),
      owned(id, 'Dressing', 'dressing', (b) => {
        for (let i = 0; i < 40; i++)
          b.place(
            i % 5 === 2 ? BUOY : CRATE,
            [i * 5 + 0.0625, 0.2, i % 2 === 0 ? 1.2 : -1.2],
            (i * 37) % 360,
            1 + (i % 3) / 4,
          );
      }),
      owned(id, 'Events', 'events', (b) =>
        b
          .marker('spawn', [1, 0.2, 0], 270)
          .marker('exit', [198, 0.2, 0])
          .volume('bell-house', 'Bell house', 'trigger', [30, 0, 0], [10, 4, 6]),
      ),
    ],
  );
  content.records.cellGrid[JETTY_GRID.id] = JETTY_GRID;
}

/** One closed room that opens by its code, or by what was gathered; entering it costs all heat. */
function vault(content: CollectionContent): void {
  const id = 'brine-vault';
  addLevel(
    content,
    { id, name: 'Brine Vault', order: 'c', code: 'BRINE', openSky: false, bounds: null },
    {
      rules: [{ kind: 'code' }, { kind: 'value', value: 'shards', least: 12 }],
      gains: [{ value: 'heat', least: 0, most: 2 }],
      resets: ['heat'],
    },
    [
      owned(id, 'Structure', 'structure', (b) =>
        b
          .wall('floor', -4, -4, 4, 4, -0.4, 0, 'slate')
          .wall('ceiling', -4, -4, 4, 4, 3, 3.4, 'slate')
          .wall('north', -4, -4.4, 4, -4, 0, 3)
          .wall('south', -4, 4, 4, 4.4, 0, 3)
          .wall('west', -4.4, -4.4, -4, 4.4, 0, 3)
          .wall('east', 4, -4.4, 4.4, 4.4, 0, 3)
          .marker('spawn', [0, 0, 0]),
      ),
    ],
  );
}
