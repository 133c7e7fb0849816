import { plainJson } from '../json/plain-json';
import { canonicalJson } from '../json/canonical-json';
import { strToU8 } from 'fflate';
import { CoreError } from '../errors';
import { PICTURE_TYPES, pictureType } from '../formats/pictures/picture-type';
import type { FieldType } from '../model/field';
import type { Json } from '../model/json';
import type { Level } from '../model/level';
import type { RecordTables } from '../model/records';
import { DEFAULT_MOVEMENT } from '../model/tile-floor';
import { assembliesWithin } from '../layout/assemblies/lay-assemblies';
import { compareOrdered } from '../model/ordered';
import { overRecordIds } from '../records';
import { entriesOf, valueOf } from '../sets/field-tables';
import type { PackFile } from './pack-kit';
import { packHead } from '../model/pack-format';

export const GAME_PATH = 'game.json';

/** What a game is told beside its levels. */
export interface GameInput {
  readonly records: RecordTables;
  /** Those that are packed, in order of play, each with the path of its file. */
  readonly levels: readonly { readonly level: Level; readonly path: string }[];
  /** Paths of the pictures that values hold, by their names. */
  readonly pictures: ReadonlyMap<string, string>;
}

/**
 * The file of what levels refer to: sets, fields and what they hold, registers with their entries, how levels open, carried
 * values, and what the codes of tile floors mean.
 */
export function gameFile({ records, levels, pictures }: GameInput): PackFile {
  const settings = Object.values(records.collection).at(0);
  const told = toldLevels(records, levels);
  const used = usedSets(
    records,
    told.map(({ level }) => level),
  );
  const assemblies = assembliesWithin(
    records.stratum,
    levels.flatMap(({ level }) => level.strata.map(({ stratum }) => stratum)),
  );
  const described: Json = {
    ...packHead('stravel-pack-game'),
    ranks: [...(settings?.ranks ?? [])],
    sets: Object.values(records.set)
      .filter(({ id }) => used.has(id))
      .sort(compareOrdered)
      .map(({ id, name, parent }) => ({ id, name, parent })),
    levels: told.map(({ level, path }) => {
      const { rules, gains, resets } = records.levelOrder[level.id] ?? { rules: [], gains: [], resets: [] };
      return {
        id: level.id,
        key: level.key,
        name: level.name,
        set: level.set,
        purpose: level.purpose,
        code: level.code,
        // Null for one that is not in this pack, but that another refers to.
        file: path,
        rules: plainJson(rules),
        gains: plainJson(gains),
        resets: [...resets],
      };
    }),
    carriedValues: Object.values(records.carriedValue)
      .sort(compareOrdered)
      .map(({ id, name, start, counts }) => ({ id, name, start, counts })),
    fields: Object.values(records.field)
      .sort(compareOrdered)
      .map(({ id, key, name, type, choices, register, list, target }) => ({
        id,
        key,
        name,
        type,
        choices: [...choices],
        of: register ?? null,
        list: list === true,
        target: target ?? null,
      })),
    registers: Object.values(records.register)
      .sort(compareOrdered)
      .map(({ id, name, kindsOf }) => ({
        id,
        name,
        kindsOf: kindsOf ?? null,
        entries: entriesOf(records, id).map((entry) => ({
          id: entry.id,
          name: entry.name,
          values: plainJson(entry.values),
        })),
      })),
    assemblies: [...assemblies]
      .filter((id) => Object.hasOwn(records.stratum, id))
      .sort()
      .map((id) => ({ id, name: records.stratum[id].name })),
    squareCodes: (settings?.legend ?? []).map((code) => plainJson(code)),
    movement: plainJson(settings?.movement ?? DEFAULT_MOVEMENT),
    pictures: Object.fromEntries([...pictures].sort(([a], [b]) => (a < b ? -1 : 1))),
  };
  return { path: GAME_PATH, bytes: strToU8(canonicalJson(described)) };
}

interface ToldLevel {
  readonly level: Level;
  readonly path: string | null;
}

/** The packed levels, then those that unlock rules and values lead to, by their keys. */
function toldLevels(records: RecordTables, packed: GameInput['levels']): ToldLevel[] {
  const told = new Map<string, ToldLevel>(packed.map((one) => [one.level.id, one]));
  for (const { level } of told.values()) {
    for (const id of [...levelsOfRules(records, level), ...heldValues(records, level.values, null, 'level')])
      if (!told.has(id) && Object.hasOwn(records.level, id)) told.set(id, { level: records.level[id], path: null });
  }
  for (const entry of Object.values(records.entry))
    for (const id of heldValues(records, entry.values, entry.register, 'level'))
      if (!told.has(id) && Object.hasOwn(records.level, id)) told.set(id, { level: records.level[id], path: null });
  const more = [...told.values()].slice(packed.length).sort((a, b) => (a.level.key < b.level.key ? -1 : 1));
  return [...packed, ...more];
}

/** Names of the pictures that values of packed levels, and of all entries, hold; sorted. */
export function gamePictures({ records, levels }: Pick<GameInput, 'records' | 'levels'>): string[] {
  const names = [
    ...levels.flatMap(({ level }) => heldValues(records, level.values, null, 'picture')),
    ...Object.values(records.entry).flatMap(({ values, register }) => heldValues(records, values, register, 'picture')),
  ];
  return [...new Set(names)].sort();
}

/** Path of a picture that a value holds. @throws CoreError 'PACK_PICTURE' where it is none that games read */
export function picturePath(name: string, bytes: Uint8Array): string {
  const type = pictureType(bytes);
  if (!type) throw new CoreError('PACK_PICTURE', `pack: the picture ${name} is neither PNG, JPEG nor WebP`, { name });
  return `pictures/${name}.${PICTURE_TYPES[type]}`;
}

function levelsOfRules({ levelOrder }: RecordTables, { id }: Level): string[] {
  const ids: string[] = [];
  if (Object.hasOwn(levelOrder, id))
    overRecordIds('levelOrder', levelOrder[id], (one, { to }) => {
      if (to === 'level') ids.push(one);
      return one;
    });
  return ids;
}

/**
 * What fields of a type hold.
 * @param register whose entry has the values; null for a level
 */
function heldValues(
  { field }: RecordTables,
  values: Level['values'],
  register: string | null,
  type: FieldType,
): string[] {
  return Object.values(field)
    .filter((one) => one.type === type && (one.register ?? null) === register)
    .flatMap((one) => [valueOf({ values }, one)].flat())
    .filter((value): value is string => typeof value === 'string' && value !== '');
}

/** Ids of the sets of levels, and of those above them. */
function usedSets({ set }: RecordTables, levels: readonly Level[]): Set<string> {
  const used = new Set<string>();
  for (const level of levels)
    for (let one = set[level.set]; one && !used.has(one.id); one = set[one.parent ?? '']) used.add(one.id);
  return used;
}
