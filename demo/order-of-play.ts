import {
  levelsInOrder,
  ordersBetween,
  type CarriedValue,
  type CollectionContent,
  type LevelOrder,
  type UnlockRule,
} from '@stravel/core';

const VALUES: readonly Omit<CarriedValue, 'order'>[] = [
  { id: 'shards', name: 'Shards', start: 0, counts: 'once' },
  { id: 'heat', name: 'Heat', start: 10, counts: 'each time' },
  { id: 'lamps-lit', name: 'Lamps lit', start: 0, counts: 'once' },
  { id: 'finds', name: 'Finds', start: 0, counts: 'once' },
];

/** Levels that do not simply follow the one before. */
const RULES: Readonly<Record<string, readonly UnlockRule[]>> = {
  'cullet-yard': [{ kind: 'start' }],
  'batch-floor': [{ kind: 'value', value: 'shards', least: 20 }],
  'tidal-gate': [{ kind: 'after', levels: ['chimney-foot', 'weighbridge'], need: 'all' }],
  'dune-quarry': [
    { kind: 'after', levels: ['causeway'], need: 'all' },
    { kind: 'value', value: 'shards', least: 60 },
  ],
  // The honest fault: more than there is to collect.
  'wreck-reach': [{ kind: 'value', value: 'shards', least: 400 }],
  'signal-mast': [{ kind: 'after', levels: ['brine-pans', 'salt-road'], need: 'any' }],
  'lehr-mouth': [{ kind: 'value', value: 'lamps-lit', least: 9 }],
  'potash-grotto': [{ kind: 'after', levels: ['kiln-tunnels'], need: 'all' }, { kind: 'code' }],
};

/** How the levels open, and what each gives to the values that are carried along. */
export function addOrder(records: CollectionContent['records']): void {
  const orders = ordersBetween(null, null, VALUES.length);
  VALUES.forEach((value, i) => (records.carriedValue[value.id] = { ...value, order: orders[i] }));
  const levels = levelsInOrder(records).filter(({ purpose }) => purpose === 'play');
  levels.forEach(({ id }, i) => {
    const before = levels
      .slice(0, i)
      .filter((level) => level.id !== 'wreck-reach')
      .at(-1);
    const order: LevelOrder = {
      id,
      rules: RULES[id] ?? [{ kind: 'after', levels: [before?.id ?? ''], need: 'all' }],
      gains: [
        // The first levels give some that nobody can miss, enough for the first threshold.
        { value: 'shards', least: i < 5 ? 8 : 0, most: 8, field: 'shards' },
        { value: 'lamps-lit', least: 1, most: 1 },
        { value: 'finds', least: 0, most: 0, field: 'pickups' },
        ...(i % 4 === 2 ? [{ value: 'heat', least: -4, most: 6 }] : []),
      ],
      resets: id === 'lehr-mouth' ? ['heat'] : [],
    };
    records.levelOrder[id] = order;
  });
}
