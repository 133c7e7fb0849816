import { ordersBetween, type CollectionContent, type Entry, type Field, type FieldValue } from '@stravel/core';

type Records = CollectionContent['records'];
type FieldSketch = readonly [key: string, name: string, type: Field['type'], rules?: Partial<Field>];
interface RegisterSketch {
  readonly id: string;
  readonly name: string;
  readonly help: string;
  /** Whether its entries are kinds of volume. */
  readonly kindsOf?: 'volume';
  readonly fields: readonly FieldSketch[];
  /** Name, then values in order of the fields. */
  readonly entries: readonly (readonly [string, ...FieldValue[]])[];
}

const REGISTERS: readonly RegisterSketch[] = [
  {
    id: 'tides',
    name: 'Tides',
    help: 'How high the brine stands while a level is played.',
    fields: [
      ['height', 'Height, m', 'number', { low: -4, high: 6 }],
      ['period', 'Period, min', 'whole number', { low: 1, high: 120 }],
      ['turns', 'Turns to', 'entry', { target: 'tides' }],
    ],
    entries: [
      ['Ebb', -1.5, 18, 'tides-slack'],
      ['Slack', 0, 6, 'tides-flood'],
      ['Flood', 2.5, 18, 'tides-spring'],
      ['Spring tide', 4, 30, 'tides-ebb'],
      ['No tide', null, null, null],
    ],
  },
  {
    id: 'abilities',
    name: 'Abilities',
    help: 'What the glassmaker has learnt to do.',
    fields: [
      ['verb', 'Verb', 'text', { required: true, pattern: '[a-z]+' }],
      ['heat', 'Heat spent', 'whole number', { low: 0, high: 20 }],
      ['learnt', 'Learnt in', 'level'],
    ],
    entries: [
      ['Gather', 'gather', 2, 'furnace-one'],
      ['Blow', 'blow', 4, 'mould-room'],
      ['Anneal', 'anneal', 6, 'cooling-vault'],
      ['Douse', 'douse', 0, 'tidal-gate'],
      ['Ring', 'ring', 1, 'signal-mast'],
    ],
  },
  {
    id: 'lamps',
    name: 'Lamps',
    help: 'Kinds of lamp that can be lit again.',
    fields: [
      ['colour', 'Colour', 'colour', { required: true }],
      ['reach', 'Reach, m', 'number', { low: 0, high: 60 }],
      ['hangs', 'Hangs at', 'point'],
    ],
    entries: [
      ['Storm lamp', '#e8b45a', 12, [0, 2.2, 0]],
      ['Kiln glow', '#d2542b', 18, [0, 1, 0]],
      ['Marsh light', '#7fb7a4', 25, [0, 3.5, 0]],
      ['Signal fire', '#f2e2b0', 60, [0, 14, 0]],
    ],
  },
  {
    id: 'bells',
    name: 'Bells',
    help: 'Bells and what answers when they are rung.',
    fields: [
      ['pitch', 'Pitch, Hz', 'number', { low: 20, high: 4000 }],
      ['answers', 'Answered in', 'level', { list: true }],
    ],
    entries: [
      ['Shift bell', 220, ['weighbridge', 'chimney-foot']],
      ['Tide bell', 146.5, ['tidal-gate']],
      ['Fog bell', 98, ['signal-mast', 'low-water']],
    ],
  },
  {
    id: 'sluices',
    name: 'Sluices',
    help: 'Gates that let brine in or keep it out.',
    fields: [
      ['width', 'Width, m', 'number', { low: 0.5, high: 12 }],
      ['tides', 'Opens at', 'entry', { target: 'tides', list: true }],
    ],
    entries: [
      ['Pan sluice', 1.2, ['tides-flood', 'tides-spring']],
      ['Culvert', 0.8, ['tides-ebb']],
      ['Great sluice', 6, ['tides-spring']],
    ],
  },
  {
    id: 'keepers',
    name: 'Keepers',
    help: 'People of the glassworks who are met again.',
    fields: [
      ['trade', 'Trade', 'choice', { choices: ['gaffer', 'batcher', 'lamplighter', 'salt raker'] }],
      ['met', 'First met in', 'level'],
      ['says', 'Says', 'long text'],
    ],
    entries: [
      ['Ysolde', 'gaffer', 'gaffers-stair', 'The glass remembers the breath.\nMind the third step.'],
      ['Bram', 'batcher', 'batch-floor', 'Sand, ash, lime. In that order.'],
      ['Tove', 'lamplighter', 'signal-mast', null],
      ['Harl', 'salt raker', 'brine-pans', 'Rake with the wind, never against it.'],
    ],
  },
  {
    id: 'cameras',
    name: 'Cameras',
    help: 'How one looks while standing in a volume.',
    kindsOf: 'volume',
    fields: [
      ['view', 'View', 'choice', { choices: ['over the shoulder', 'from above', 'along a rail'], required: true }],
      ['blend', 'Blend, s', 'number', { low: 0, high: 10 }],
    ],
    entries: [
      ['Hall view', 'from above', 1.5],
      ['Close view', 'over the shoulder', 0.5],
    ],
  },
  {
    id: 'music',
    name: 'Music',
    help: 'What is heard while standing in a volume.',
    kindsOf: 'volume',
    fields: [
      ['track', 'Track', 'text', { required: true }],
      ['loudness', 'Loudness, %', 'whole number', { low: 0, high: 100 }],
      ['fade', 'Fade, s', 'number', { low: 0, high: 30 }],
    ],
    entries: [
      ['Cold hall', 'drone of the cold hall', 60, 4],
      ['Furnace song', 'furnace song', 80, 6],
    ],
  },
  {
    id: 'light',
    name: 'Light',
    help: 'How a volume is lit.',
    kindsOf: 'volume',
    fields: [
      ['lamp', 'Lamp', 'entry', { target: 'lamps' }],
      ['strength', 'Strength, %', 'whole number', { low: 0, high: 400 }],
    ],
    entries: [
      ['Lamp pool', 'lamps-storm', 100],
      ['Ember gloom', 'lamps-kiln', 35],
    ],
  },
  {
    id: 'narration',
    name: 'Narration',
    help: 'What is said when a volume is entered, one line at a time.',
    kindsOf: 'volume',
    fields: [
      ['speaker', 'Speaker', 'entry', { target: 'keepers' }],
      ['lines', 'Lines', 'text', { list: true }],
      ['pause', 'Pause, s', 'number', { low: 0, high: 20 }],
    ],
    entries: [
      ['Warning', 'keepers-ysolde', ['Not that way.', 'The floor is older than the glass.'], 1.5],
      ['Welcome', 'keepers-bram', ['Sort by colour, then by weight.', 'The bell opens the gate.'], 2],
    ],
  },
  {
    id: 'switches',
    name: 'Switches',
    help: 'What is used to make something else happen.',
    kindsOf: 'volume',
    fields: [
      ['bell', 'Bell', 'entry', { target: 'bells' }],
      ['heavy', 'Needs both hands', 'yes/no'],
    ],
    entries: [
      ['Bell pull', 'bells-shift', false],
      ['Sluice wheel', null, true],
    ],
  },
];

/** Fields of the levels that link to registers. */
export const REGISTER_FIELDS: readonly (readonly [string, string, Field['type'], Partial<Field>])[] = [
  ['tide', 'Tide', 'entry', { target: 'tides', group: 'look' }],
  ['abilities', 'Abilities', 'entry', { target: 'abilities', list: true, help: 'What must be learnt to get through.' }],
];

const ids = (register: string): string[] =>
  (REGISTERS.find(({ id }) => id === register)?.entries ?? []).map(([name]) => entryId(register, name));
const entryId = (register: string, name: string): string => `${register}-${name.toLowerCase().split(' ')[0]}`;

/** What the level of a place in the collection has in the fields that link to registers. */
export function registerValues(place: number): Record<string, FieldValue> {
  const [tides, abilities] = [ids('tides'), ids('abilities')];
  return {
    tide: place < 8 || place >= 16 ? 'tides-no' : tides[place % 4],
    abilities: abilities.slice(0, Math.min(abilities.length, Math.floor(place / 4))),
  };
}

export function addRegisters(records: Records): void {
  const orders = ordersBetween(null, null, REGISTERS.length);
  REGISTERS.forEach(({ id, name, help, kindsOf, fields, entries }, r) => {
    records.register[id] = { id, name, help, order: orders[r], ...(kindsOf ? { kindsOf } : {}) };
    const fieldOrders = ordersBetween(null, null, fields.length);
    fields.forEach(([key, fieldName, type, rules], f) => {
      const field: Field = {
        id: `${id}-field-${key}`,
        key,
        name: fieldName,
        type,
        choices: [],
        order: fieldOrders[f],
        register: id,
        ...rules,
      };
      records.field[field.id] = field;
    });
    const entryOrders = ordersBetween(null, null, entries.length);
    entries.forEach(([entryName, ...values], e) => {
      const entry: Entry = {
        id: entryId(id, entryName),
        register: id,
        name: entryName,
        order: entryOrders[e],
        values: Object.fromEntries(fields.map(([key], f) => [key, values[f] ?? null])),
      };
      records.entry[entry.id] = entry;
    });
  });
}
