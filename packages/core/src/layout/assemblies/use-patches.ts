import { storedRecord } from '../../document/stored-record';
import { plainJson } from '../../json/plain-json';
import { isLaidOver } from '../../items';
import type { Operation } from '../../document/operation';
import type { AssemblyUse, Item, ItemKind, Patch, UsePatch } from '../../model/items';
import { patchId } from '../../model/patch';
import { isJsonTable } from '../../model/json';
import type { SharedStratum } from '../patch-operations';

/** What a use has otherwise, as patches of a shared stratum are told: the use stands where a level does. */
export function patchesOfUse({ id, patches }: AssemblyUse): Patch[] {
  return Object.entries(patches ?? {})
    .map(([target, patch]): Patch => ({ ...patch, id: patchId(id, target), level: id, target }))
    .sort((a, b) => (a.target < b.target ? -1 : 1));
}

/** An assembly as an edit in one use of it finds it. @param item a thing of the assembly as all uses share it */
export function assemblyOfUse(use: AssemblyUse, item: (kind: ItemKind, id: string) => Item | undefined): SharedStratum {
  const patches = patchesOfUse(use);
  const patch = (id: string): Patch | undefined => patches.find((one) => one.id === id);
  return {
    id: use.assembly,
    level: use.id,
    item: (kind, id) => (isLaidOver(kind) ? patch(id) : item(kind, id)),
    patch,
    patches: () => patches,
  };
}

/**
 * Operations as they are made for a shared stratum's patches, on the use that keeps them instead; all others stay as they are.
 * @param stratum the one that the use stands in
 */
export function operationsOnUse(stratum: string, use: AssemblyUse, operations: readonly Operation[]): Operation[] {
  const others = operations.filter(({ kind }) => !isLaidOver(kind));
  const own = operations.filter(({ kind }) => isLaidOver(kind));
  if (own.length === 0) return others;
  const patches = new Map(patchesOfUse(use).map((patch) => [patch.id, patch]));
  for (const { id, field, after } of own) {
    const known = patches.get(id);
    if (field === null && after === null) patches.delete(id);
    else if (field === null && isJsonTable(after)) patches.set(id, storedRecord('patch', after));
    else if (known && field !== null) patches.set(id, { ...known, [field]: after });
  }
  const kept = Object.fromEntries(
    [...patches.values()].map(({ target, kind, change, fields, was }): [string, UsePatch] => [
      target,
      { kind, change, fields, was },
    ]),
  );
  const after = Object.keys(kept).length === 0 ? null : plainJson(kept);
  return [
    ...others,
    {
      document: stratum,
      kind: 'assembly',
      id: use.id,
      field: 'patches',
      before: plainJson(use.patches ?? null),
      after,
    },
  ];
}
