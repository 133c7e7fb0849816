import type { JsonRecord } from '../document/apply-operation';
import type { Operation } from '../document/operation';
import { CoreError } from '../errors';
import { isJsonTable, type Json } from '../model/json';
import type { EditableKind } from '../model/records';
import type { FieldValueOf, Upgrade } from './upgrade';

/** The first version: that of everything that doesn't say its version. */
export const FIRST_MODEL_VERSION = 1;

/** Fields of a local change that hold parts of what it changes. */
const CHANGE_FIELDS: readonly string[] = ['fields', 'was'];

/** Brings records, operations and texts of earlier versions of the model up to date. */
export class ModelUpgrades {
  /** The version that all is brought to. */
  readonly version: number;

  /** @param list oldest first @throws Error when the versions have a gap */
  constructor(private readonly list: readonly Upgrade[]) {
    list.forEach(({ to }, i) => {
      const before = i === 0 ? FIRST_MODEL_VERSION : list[i - 1].to;
      if (to !== before && to !== before + 1) throw new Error(`upgrades: ${to} comes after ${before}`);
    });
    this.version = list.at(-1)?.to ?? FIRST_MODEL_VERSION;
  }

  /**
   * The version that something says it has; what says nothing has the first.
   * @throws CoreError 'MODEL_NEWER' when this program is older, 'MODEL_VERSION' when it is no version
   */
  checked(version: unknown, what: string): number {
    if (version === undefined || version === null) return FIRST_MODEL_VERSION;
    if (typeof version !== 'number' || !Number.isInteger(version) || version < FIRST_MODEL_VERSION) {
      throw new CoreError(
        'MODEL_VERSION',
        `${what}: its model version is ${JSON.stringify(version)}, must be a whole number from 1`,
      );
    }
    if (version > this.version) {
      throw new CoreError(
        'MODEL_NEWER',
        `${what}: it was written by a newer Stravel (model ${version}, this one reads up to ${this.version}); open it with that one`,
        { version, reads: this.version },
      );
    }
    return version;
  }

  /** A record as the newest version has it; the same back where nothing changes. @param from the version that it has */
  record(kind: EditableKind, record: JsonRecord, from: number): JsonRecord {
    return this.after(from).reduce((one, upgrade) => recordAfter(upgrade, kind, one), record);
  }

  /** Operations as the newest version has them; the same back where nothing changes. */
  operations(operations: readonly Operation[], from: number): readonly Operation[] {
    return this.after(from).reduce<readonly Operation[]>((list, upgrade) => {
      const upgraded = list.map((operation) => operationAfter(upgrade, operation));
      return upgraded.some((operation, i) => operation !== list[i]) ? upgraded : list;
    }, operations);
  }

  /** Whether JSON of an earlier version may hold something that has changed since. */
  mayChange(json: string, from: number): boolean {
    return this.after(from).some(({ mentions }) => json.includes(`"${mentions}"`) || json.includes(`.${mentions}"`));
  }

  private after(from: number): readonly Upgrade[] {
    return from >= this.version ? [] : this.list.filter(({ to }) => to > from);
  }
}

/** Kinds that hold parts of things of other kinds: how the whole record and single fields of it come after an upgrade. */
const HOLDERS: Readonly<Partial<Record<EditableKind, Holder>>> = {
  patch: {
    record: (upgrade, patch) => changeAfter(upgrade, patch),
    operation: (upgrade, operation, field) => {
      const [table, ...rest] = field.split('.');
      if (!CHANGE_FIELDS.includes(table)) return operation;
      if (rest.length === 0) return changed(operation, field, (value) => partsAfter(upgrade, value));
      const inner = rest.join('.');
      const upgraded = (value: Json): FieldValueOf => upgrade.value?.(inner, value) ?? { field: inner, value };
      const name = `${table}.${upgraded(operation.after).field}`;
      return changed(operation, name, (value) => upgraded(value).value);
    },
  },
  assembly: {
    record: (upgrade, use) => mapped(use, 'patches', (patches) => usesAfter(upgrade, patches)),
    operation: (upgrade, operation, field) => {
      if (field === 'patches') return changed(operation, field, (value) => usesAfter(upgrade, value));
      if (!field.startsWith('patches.')) return operation;
      return changed(operation, field, (value) => (isJsonTable(value) ? changeAfter(upgrade, value) : value));
    },
  },
};

interface Holder {
  record(upgrade: Upgrade, record: JsonRecord): JsonRecord;
  operation(upgrade: Upgrade, operation: Operation, field: string): Operation;
}

function recordAfter(upgrade: Upgrade, kind: EditableKind, record: JsonRecord): JsonRecord {
  if (kind === upgrade.kind) return upgrade.record?.(record) ?? record;
  return HOLDERS[kind]?.record(upgrade, record) ?? record;
}

/** Operations on things that are there or were. */
function operationAfter(upgrade: Upgrade, operation: Operation): Operation {
  const { kind, field } = operation;
  if (field === null) {
    return changed(operation, field, (value) => (isJsonTable(value) ? recordAfter(upgrade, kind, value) : value));
  }
  if (kind !== upgrade.kind) return HOLDERS[kind]?.operation(upgrade, operation, field) ?? operation;
  // Values within a table are of the person's own making, and no upgrade knows them.
  const { value } = upgrade;
  if (!value || field.includes('.')) return operation;
  return changed(operation, value(field, operation.after).field, (one) => value(field, one).value);
}

function changed(operation: Operation, field: string | null, of: (value: Json) => Json): Operation {
  const [before, after] = [of(operation.before), of(operation.after)];
  return before === operation.before && after === operation.after && field === operation.field
    ? operation
    : { ...operation, field, before, after };
}

/** A local change, whole: one of a thing of another kind stays. */
function changeAfter(upgrade: Upgrade, change: JsonRecord): JsonRecord {
  if (change['kind'] !== upgrade.kind) return change;
  return CHANGE_FIELDS.reduce((record, field) => mapped(record, field, (value) => partsAfter(upgrade, value)), change);
}

function usesAfter(upgrade: Upgrade, patches: Json): Json {
  if (!isJsonTable(patches)) return patches;
  return mappedTable(patches, (one) => (isJsonTable(one) ? changeAfter(upgrade, one) : one));
}

/** What a local change holds: a whole record where the thing was added, else fields. Those of other kinds are left as they are. */
function partsAfter(upgrade: Upgrade, parts: Json): Json {
  if (!isJsonTable(parts)) return parts;
  if (Object.hasOwn(parts, 'id')) return upgrade.isOne(parts) ? (upgrade.record?.(parts) ?? parts) : parts;
  const { value } = upgrade;
  if (!value) return parts;
  const entries = Object.entries(parts).map(([field, one]) => ({ one, ...value(field, one), was: field }));
  return entries.every(({ field, was, value: after, one }) => field === was && after === one)
    ? parts
    : Object.fromEntries(entries.map(({ field, value: after }) => [field, after]));
}

function mapped(record: JsonRecord, field: string, of: (value: Json) => Json): JsonRecord {
  if (!Object.hasOwn(record, field)) return record;
  const after = of(record[field]);
  return after === record[field] ? record : { ...record, [field]: after };
}

function mappedTable(table: JsonRecord, of: (value: Json) => Json): JsonRecord {
  const entries = Object.entries(table).map(([key, one]) => [key, one, of(one)] as const);
  return entries.every(([, one, after]) => one === after)
    ? table
    : Object.fromEntries(entries.map(([key, , after]) => [key, after]));
}
