import { plainJson, plainRecordIfAny } from '../json/plain-json';
import { applyOperation, valueAt, type JsonRecord } from '../document/apply-operation';
import { equalJson } from '../document/equal-json';
import type { Operation } from '../document/operation';
import { CoreError } from '../errors';
import type { Json } from '../model/json';
import { patchId } from '../model/patch';
import type { Item, ItemKind, Patch } from '../model/items';
import { ITEMS, isItemKind } from '../items';
import { patchedItem } from './patched-content';

/** A shared stratum, as an edit in one level finds it. */
export interface SharedStratum {
  readonly id: string;
  /** The level in which is worked. */
  readonly level: string;
  /** An item as all levels share it. */
  readonly item: (kind: ItemKind, id: string) => Item | undefined;
  /** A patch of any level. */
  readonly patch: (id: string) => Patch | undefined;
  /** All patches of all levels. */
  readonly patches: () => Iterable<Patch>;
}

/**
 * Turns a change into one for this level alone.
 * @param operations on items as this level sees them; those of kinds that cannot be patched are refused
 * @returns operations on the level's patches
 * @throws CoreError 'PATCH_KIND' for a kind that a level cannot have otherwise; 'PATCH_TARGET' for an item that is not there
 */
export function operationsForOne(stratum: SharedStratum, operations: readonly Operation[]): Operation[] {
  const after = new Map<
    string,
    { readonly kind: ItemKind; readonly before: Patch | undefined; now: Patch | undefined }
  >();
  for (const operation of operations) {
    const kind = patchableKind(operation.kind);
    const { id: target } = operation;
    const id = patchId(stratum.level, target);
    const known = after.get(id) ?? { kind, before: stratum.patch(id), now: stratum.patch(id) };
    after.set(id, known);
    const shared = stratum.item(kind, target);
    const record = applyOperation(plainRecordIfAny(patchedItem(kind, shared, known.now)), operation);
    known.now = patchBetween(
      { id, level: stratum.level, kind, target },
      plainRecordIfAny(shared),
      record,
      known.now?.was ?? {},
    );
  }
  return [...after].flatMap(([id, { before, now }]) => replacePatch(stratum.id, id, before, now));
}

/**
 * Turns a change into one for all levels. What the level had otherwise and is changed now is had in common again; what only
 * this level has stays its own. Removing a thing for all removes every level's patch of it.
 * @param operations on items as this level sees them
 */
export function operationsForAll(stratum: SharedStratum, operations: readonly Operation[]): Operation[] {
  const result: Operation[] = [];
  const own: Operation[] = [];
  const freed = new Map<string, { readonly patch: Patch; readonly fields: Set<string> }>();
  const shared = new Map<string, JsonRecord | undefined>();
  for (const operation of operations) {
    const { kind, id, field, after } = operation;
    if (!isPatchable(kind)) {
      result.push(operation);
      continue;
    }
    const patch = stratum.patch(patchId(stratum.level, id));
    if (patch?.change === 'added') {
      own.push(operation);
      continue;
    }
    const key = `${kind} ${id}`;
    const record = shared.has(key) ? shared.get(key) : plainRecordIfAny(stratum.item(kind, id));
    const one: Operation = {
      ...operation,
      document: stratum.id,
      before: field === null && after !== null ? null : valueAt(record, field),
    };
    result.push(one);
    shared.set(key, applyOperation(record, one));
    if (field === null && after === null) {
      for (const other of stratum.patches())
        if (other.target === id && other.kind === kind)
          result.push(...replacePatch(stratum.id, other.id, other, undefined));
    } else if (field !== null && patch?.change === 'changed') {
      const known = freed.get(patch.id) ?? { patch, fields: new Set<string>() };
      freed.set(patch.id, known);
      known.fields.add(field.split('.')[0]);
    }
  }
  for (const { patch, fields } of freed.values()) {
    const keep = (table: Readonly<Record<string, Json>>): Record<string, Json> =>
      Object.fromEntries(Object.entries(table).filter(([field]) => !fields.has(field)));
    const left = keep(patch.fields);
    result.push(
      ...replacePatch(
        stratum.id,
        patch.id,
        patch,
        Object.keys(left).length === 0 ? undefined : { ...patch, fields: left, was: keep(patch.was) },
      ),
    );
  }
  return [...result, ...operationsForOne(stratum, own)];
}

/** Takes the shared values of now as those that a patch was made against, so that only later changes of them are told. */
export function keepPatch(stratum: SharedStratum, patch: Patch): Operation[] {
  const shared = plainRecordIfAny(stratum.item(patch.kind, patch.target));
  if (!shared || patch.change !== 'changed') return [];
  const was = Object.fromEntries(Object.keys(patch.fields).map((field) => [field, shared[field] ?? null]));
  return replacePatch(stratum.id, patch.id, patch, { ...patch, was });
}

/** Takes a patch away: the level has the object as all others do. */
export function revertPatch(stratum: string, patch: Patch): Operation[] {
  return replacePatch(stratum, patch.id, patch, undefined);
}

/**
 * Gives what one level has otherwise to all. Other levels' patches of the same thing stay, unless the thing goes.
 * @throws CoreError 'PATCH_TARGET' when what it changes is gone
 */
export function pushPatch(stratum: SharedStratum, patch: Patch): Operation[] {
  const shared = plainRecordIfAny(stratum.item(patch.kind, patch.target));
  const base = { document: stratum.id, kind: patch.kind, id: patch.target };
  const away = revertPatch(stratum.id, patch);
  if (patch.change === 'added') {
    if (shared)
      throw new CoreError(
        'PATCH_TARGET',
        `local change: the ${patch.kind} ${patch.target} is already in the shared stratum`,
        { target: patch.target },
      );
    return [...away, { ...base, field: null, before: null, after: patch.fields }];
  }
  if (!shared)
    throw new CoreError(
      'PATCH_TARGET',
      `local change: the ${patch.kind} ${patch.target} is no longer in the shared stratum`,
      {
        target: patch.target,
      },
    );
  if (patch.change === 'hidden') {
    const others = [...stratum.patches()].filter(
      (other) => other.target === patch.target && other.kind === patch.kind && other.id !== patch.id,
    );
    return [
      ...away,
      ...others.flatMap((other) => revertPatch(stratum.id, other)),
      { ...base, field: null, before: shared, after: null },
    ];
  }
  return [
    ...away,
    ...Object.entries(patch.fields).map(([field, after]): Operation => ({
      ...base,
      field,
      before: valueAt(shared, field),
      after,
    })),
  ];
}

/** Whether a level can have a kind of item otherwise than the others. */
export function isPatchable(kind: string): kind is ItemKind {
  return isItemKind(kind) && ITEMS[kind].traits.local;
}

function patchableKind(kind: string): ItemKind {
  if (!isPatchable(kind))
    throw new CoreError(
      'PATCH_KIND',
      `local change: a ${kind} is the same in all levels that share its stratum; change it in all of them, or make a separate copy for this level`,
      { kind },
    );
  return kind;
}

/** The patch that makes a record of the shared one; undefined when none is needed. */
function patchBetween(
  head: Pick<Patch, 'id' | 'level' | 'kind' | 'target'>,
  shared: JsonRecord | undefined,
  record: JsonRecord | undefined,
  was: Patch['was'],
): Patch | undefined {
  if (!record) return shared ? { ...head, change: 'hidden', fields: {}, was: {} } : undefined;
  if (!shared) return { ...head, change: 'added', fields: record, was: {} };
  const names = [...new Set([...Object.keys(shared), ...Object.keys(record)])].sort();
  const changed = names.filter((field) => !equalJson(valueAt(shared, field), valueAt(record, field)));
  if (changed.length === 0) return undefined;
  const table = (of: JsonRecord): Record<string, Json> =>
    Object.fromEntries(changed.map((field) => [field, valueAt(of, field)]));
  return {
    ...head,
    change: 'changed',
    fields: table(record),
    was: {
      ...table(shared),
      ...Object.fromEntries(changed.filter((field) => Object.hasOwn(was, field)).map((field) => [field, was[field]])),
    },
  };
}

function replacePatch(document: string, id: string, before: Patch | undefined, after: Patch | undefined): Operation[] {
  const operation = (field: string | null, from: Json, to: Json): Operation => ({
    document,
    kind: 'patch',
    id,
    field,
    before: from,
    after: to,
  });
  const plain = (patch: Patch | undefined): Json => plainJson(patch ?? null);
  if (!before || !after) return before === after ? [] : [operation(null, plain(before), plain(after))];
  return (['change', 'fields', 'was'] as const).flatMap((field) =>
    equalJson(before[field], after[field]) ? [] : [operation(field, before[field], after[field])],
  );
}
