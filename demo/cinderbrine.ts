import {
  DEFAULT_CODE_PATTERN,
  PLAIN_TARGET,
  STANDARD_DEVICES,
  emptyRecordTables,
  freeCodes,
  freeKey,
  ordersBetween,
  randomStream,
  takenKeys,
  type CollectionContent,
  type Field,
  type FieldValue,
  type GroupTemplate,
  type Level,
  type Purpose,
  type ReadinessRules,
  type Target,
} from '@stravel/core';
import { demoAssemblies } from './assemblies';
import { WORKS_BASE, builtLevels, worksBase, type BuiltLevel, type BuiltStratum } from './built-levels';
import { BATCH_LEGEND, BATCH_MOVEMENT, batchFloor } from './batch-floor';
import { LOW_WATER_GRID, LOW_WATER_RUN, cavesAndFlats } from './caves-and-flats';
import { deepLehrLevels } from './deep-lehr-levels';
import { demoKits } from './kits';
import { addOrder } from './order-of-play';
import { mouldRoom } from './mould-room';
import { REGISTER_FIELDS, addRegisters, registerValues } from './registers';
import { saltAndSandLevels } from './salt-and-sand-levels';
import { shoreLevels } from './shore-levels';
import { worksLevels } from './works-levels';

/** Parts, their chapters, and the names of their levels in order of play. */
const PARTS: readonly (readonly [string, readonly (readonly [string, readonly string[]])[]])[] = [
  [
    'The Works',
    [
      ['First Light', ['Cullet Yard', 'Sorting Hall', 'Furnace One']],
      ['The Long Shift', ["Gaffer's Stair", 'Mould Room', 'Batch Floor']],
      ['Tally', ['Chimney Foot', 'Weighbridge']],
    ],
  ],
  [
    'The Flats',
    [
      ['Ebb', ['Tidal Gate', 'Causeway', 'Dune Quarry']],
      ['Slack Water', ['Brine Pans', 'Salt Road', 'Wreck Reach']],
      ['Flood', ['Signal Mast', 'Low Water']],
    ],
  ],
  [
    'The Deep Lehr',
    [
      ['Descent', ['Lehr Mouth', 'Kiln Tunnels', 'Potash Grotto']],
      ['Anneal', ['Cooling Vault', 'Sump', 'Ash Gallery']],
      ['Heart', ['Glass Heart', 'Relight']],
    ],
  ],
];
const WORKSHOP: readonly (readonly [string, Purpose])[] = [
  ['Lift test', 'test'],
  ['Lamp test', 'test'],
  ['Swim test', 'test'],
  ['Piece gallery', 'tool'],
];
const MOODS = ['overcast', 'lamp-lit', 'ember', 'salt haze', 'dark'];

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/'/g, '')
    .replace(/[^a-z0-9]+/g, '-');

/** What Cinderbrine asks of a level before it counts as ready. */
const READINESS: ReadinessRules = {
  fields: ['field-mood', 'field-due'],
  spawn: true,
  exit: true,
  code: true,
  bakes: true,
  findings: true,
  devices: ['handheld'],
};

/** What the game is built for: a console that reads a kit at once, and a tower that picks pieces and reads placements as columns. */
const TARGETS: readonly Omit<Target, 'order'>[] = [
  { ...PLAIN_TARGET, id: 'console-build', name: 'Console build', folder: 'console', meshFiles: 'perKit' },
  {
    ...PLAIN_TARGET,
    id: 'tower-build',
    name: 'Tower build',
    folder: 'tower',
    placements: 'millimetre',
    rules: { textureSize: { isOn: true, max: 8192 }, pathKnots: { isOn: true, max: 512 } },
  },
];

/** Folders that the levels of Cinderbrine have in common. */
const GROUP_TEMPLATES: readonly GroupTemplate[] = [
  {
    name: 'Room',
    parts: [
      { name: 'Room', parent: null, category: 'room', colour: 'slate' },
      { name: 'Furnishing', parent: 0, category: 'look', colour: 'ochre' },
      { name: 'Doors', parent: 0, category: 'doors', colour: 'kiln' },
      { name: 'Events', parent: 0, category: 'events', colour: 'madder' },
    ],
  },
];

/** The demo collection, made from nothing but this folder; the same bytes every time. */
export async function cinderbrine(): Promise<CollectionContent> {
  const content: CollectionContent = { records: emptyRecordTables(), strata: new Map(), assets: new Map() };
  const { records } = content;
  records.collection['collection'] = {
    id: 'collection',
    name: 'Cinderbrine',
    ranks: ['Part', 'Chapter'],
    readiness: READINESS,
    groupTemplates: GROUP_TEMPLATES,
    legend: BATCH_LEGEND,
    movement: BATCH_MOVEMENT,
  };
  addRegisters(records);
  addFields(content);
  addSetsAndLevels(content);
  addOrder(records);
  const deviceOrders = ordersBetween(null, null, STANDARD_DEVICES.length);
  STANDARD_DEVICES.forEach((device, i) => (records.device[device.id] = { ...device, order: deviceOrders[i] }));
  const targetOrders = ordersBetween(null, null, TARGETS.length);
  TARGETS.forEach((target, i) => (records.target[target.id] = { ...target, order: targetOrders[i] }));
  for (const { kit, pieces, bytes } of await demoKits()) {
    records.kit[kit.id] = kit;
    for (const piece of pieces) records.piece[piece.id] = piece;
    content.assets.set(kit.mesh, bytes);
  }
  addBuiltLevels(content);
  records.cellGrid[LOW_WATER_GRID.id] = LOW_WATER_GRID;
  records.rehearsal[LOW_WATER_RUN.id] = LOW_WATER_RUN;
  return content;
}

function addFields({ records }: CollectionContent): void {
  const fields: readonly (readonly [string, string, Field['type'], Partial<Field>])[] = [
    ['mood', 'Mood', 'choice', { choices: MOODS, group: 'look' }],
    ['shards', 'Shards', 'number', { low: 0, high: 99, help: 'Glass shards that can be picked up there.' }],
    ['checked', 'Checked', 'yes/no', {}],
    ['due', 'Due', 'date', {}],
    ['note', 'Note', 'text', {}],
    ...REGISTER_FIELDS,
    ['strata', 'Strata', 'whole number', { figure: 'strata' }],
    [
      'pickups',
      'Pickups',
      'whole number',
      { figure: 'markers', counted: 'pickup', help: 'Pickup markers in the level, as its last bake counted them.' },
    ],
  ];
  const orders = ordersBetween(null, null, fields.length);
  fields.forEach(([key, name, type, rules], i) => {
    records.field[`field-${key}`] = { id: `field-${key}`, key, name, type, choices: [], order: orders[i], ...rules };
  });
}

function addSetsAndLevels({ records }: CollectionContent): void {
  const random = randomStream('cinderbrine levels');
  const addSet = (name: string, parent: string | null, order: string): string => {
    const id = `set-${slug(name)}`;
    records.set[id] = { id, name, parent, order, binned: null };
    return id;
  };
  const addLevel = (name: string, set: string, order: string, purpose: Purpose, count: number): void => {
    const id = slug(name);
    const values: Record<string, FieldValue> =
      purpose === 'play'
        ? {
            mood: MOODS[random.below(MOODS.length)],
            shards: 3 + random.below(14),
            checked: random.next() < 0.4,
            due: `2027-0${1 + (count % 9)}-1${count % 10}`,
            note: '',
            ...registerValues(count),
          }
        : { note: `For trying ${name.toLowerCase()} things` };
    const level: Level = {
      id,
      name,
      key: freeKey(name, 'level', count + 1, takenKeys(records)),
      set,
      order,
      purpose,
      code: freeCodes(records, DEFAULT_CODE_PATTERN, 1, (limit) => random.below(limit))[0],
      values,
      strata: [],
      openSky: false,
      bounds: null,
      binned: null,
    };
    records.level[id] = level;
  };
  const partOrders = ordersBetween(null, null, PARTS.length + 1);
  let count = 0;
  PARTS.forEach(([part, chapters], p) => {
    const partId = addSet(part, null, partOrders[p]);
    const chapterOrders = ordersBetween(null, null, chapters.length);
    chapters.forEach(([chapter, names], c) => {
      const chapterId = addSet(chapter, partId, chapterOrders[c]);
      const orders = ordersBetween(null, null, names.length);
      names.forEach((name, n) => addLevel(name, chapterId, orders[n], 'play', count++));
    });
  });
  const workshop = addSet('Workshop', null, partOrders[PARTS.length]);
  const orders = ordersBetween(null, null, WORKSHOP.length);
  WORKSHOP.forEach(([name, purpose], n) => addLevel(name, workshop, orders[n], purpose, count++));
  // The honest fault: one code used twice.
  records.level['ash-gallery'] = { ...records.level['ash-gallery'], code: records.level['brine-pans'].code };
}

const allBuilt = (): BuiltLevel[] => [
  ...builtLevels(),
  ...worksLevels(),
  batchFloor(),
  mouldRoom(),
  ...shoreLevels(),
  ...saltAndSandLevels(),
  ...cavesAndFlats(),
  ...deepLehrLevels(),
];

function addBuiltLevels(content: CollectionContent): void {
  const add = ({ stratum, content: items }: BuiltStratum): string => {
    content.records.stratum[stratum.id] = stratum;
    content.strata.set(stratum.id, items);
    return stratum.id;
  };
  add(worksBase());
  for (const assembly of demoAssemblies('kit-works')) add(assembly);
  for (const built of allBuilt()) {
    const strata = built.strata.map((entry) => ({
      stratum: typeof entry === 'string' ? entry : add(entry),
      switchedOff: false,
    }));
    content.records.level[built.level] = {
      ...content.records.level[built.level],
      openSky: built.openSky,
      bounds: built.bounds,
      strata,
    };
  }
  const gallery = content.records.level['piece-gallery'];
  content.records.level[gallery.id] = { ...gallery, strata: [{ stratum: WORKS_BASE, switchedOff: false }] };
}
