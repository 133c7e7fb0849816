import { CoreError } from '../errors';
import type { CollectionContent } from '../model/collection-content';
import { emptyRecordTables } from '../records';
import { STANDARD_DEVICES } from '../model/standard-devices';
import { checkedRecord } from '../document/validate-record';
import { NEW_LEVEL_NAME } from './keys';
import { newLevelRecord } from './new-level';
import { ordersBetween } from './order';

/** What a new collection starts with. */
export interface NewCollection {
  readonly name: string;
  /** Names of the ranks of sets from the top, 1 to 8. */
  readonly ranks: readonly string[];
  /** Name of its first set. */
  readonly set: string;
  /** Ids of the standard devices that it starts with; none is a start too. */
  readonly devices: readonly string[];
}

export const DEFAULT_RANKS: readonly string[] = ['Part', 'Chapter'];

/**
 * A collection of one set with one level that nobody has named yet.
 * @throws CoreError 'RECORD_INVALID' naming what is wrong with the name, a rank or the set; 'DEVICE_UNKNOWN'
 */
export function newCollection({ name, ranks, set, devices }: NewCollection): CollectionContent {
  const records = emptyRecordTables();
  records.collection['collection'] = checkedRecord('collection', {
    id: 'collection',
    name: name.trim(),
    ranks: ranks.map((rank) => rank.trim()),
  });
  const [order] = ordersBetween(null, null);
  records.set['set-1'] = checkedRecord('set', { id: 'set-1', name: set.trim(), parent: null, order, binned: null });
  records.level['level-1'] = newLevelRecord(records, 'set-1', NEW_LEVEL_NAME, 'level-1');
  const wanted = new Set(devices);
  const unknown = devices.find((id) => !STANDARD_DEVICES.some((device) => device.id === id));
  if (unknown !== undefined) {
    throw new CoreError(
      'DEVICE_UNKNOWN',
      `collection: there is no standard device ${unknown}; there are: ${STANDARD_DEVICES.map(({ id }) => id).join(', ')}`,
      { id: unknown },
    );
  }
  const chosen = STANDARD_DEVICES.filter(({ id }) => wanted.has(id));
  const orders = ordersBetween(null, null, Math.max(1, chosen.length));
  chosen.forEach((device, i) => (records.device[device.id] = { ...device, order: orders[i] }));
  return { records, strata: new Map(), assets: new Map() };
}

/**
 * A collection with everything but its levels: sets, fields, registers, kits with their assemblies, devices and rules stay;
 * what belongs to a level goes, and values that name one are emptied.
 */
export function withoutLevels({ records, strata, assets }: CollectionContent): CollectionContent {
  const assemblies = Object.fromEntries(Object.entries(records.stratum).filter(([, { kit }]) => Boolean(kit)));
  const kept = new Map(
    [...strata].filter(([id]) => Object.hasOwn(assemblies, id)).map(([id, content]) => [id, { ...content, patch: [] }]),
  );
  const linking = Object.values(records.field).filter(({ type }) => type === 'level');
  const field = Object.fromEntries(
    Object.entries(records.field).map(([id, one]) => [
      id,
      one.type === 'level' && one.default !== undefined ? { ...one, default: null } : one,
    ]),
  );
  const entry = Object.fromEntries(
    Object.entries(records.entry).map(([id, one]) => {
      const emptied = linking.filter(
        ({ register, key }) => register === one.register && Object.hasOwn(one.values, key),
      );
      return [
        id,
        emptied.length === 0
          ? one
          : { ...one, values: { ...one.values, ...Object.fromEntries(emptied.map(({ key }) => [key, null])) } },
      ];
    }),
  );
  return {
    records: {
      ...records,
      level: {},
      stratum: assemblies,
      field,
      entry,
      acceptance: {},
      cellGrid: {},
      rehearsal: {},
      levelOrder: {},
    },
    strata: kept,
    assets,
  };
}

/** The same collection under another name. */
export function renamed(content: CollectionContent, name: string): CollectionContent {
  const settings = Object.values(content.records.collection)[0];
  return {
    ...content,
    records: { ...content.records, collection: { [settings.id]: checkedRecord('collection', { ...settings, name }) } },
  };
}
