import {
  ASSEMBLED_KINDS,
  CoreError,
  EMPTY_CONTENT,
  RECORDS_DOCUMENT,
  contentOfSome,
  instantiateOnce,
  movedFields,
  patchedContent,
  patchesOfUse,
  plainRecord,
  specOf,
  storedRecord,
  toMicro,
  type AssemblyUse,
  type Item,
  type ItemKind,
  type Operation,
  type Stratum,
  type StratumContent,
  type Vector3,
} from '@stravel/core';
import { copiedItems } from '../../../../edits/copied-items';
import { create, newId, remove, setField } from '../../../../edits/operations';
import { assembliesIn } from '../../editing/item-names';
import { changedItem, ofKind, placedItem, type PlacedItem } from '../../editing/placed-item';

export interface AssemblyRequest {
  readonly name: string;
  readonly kit: string;
  /** The point of the level that becomes the assembly's own zero, metres. */
  readonly pivot: Vector3;
  /** Stratum in which the assembly stands in place of what it was made from. */
  readonly into: string;
}

/**
 * Makes an assembly of things, which then stand where they stood as one use of it.
 * @throws CoreError 'ASSEMBLY_KIND' naming what cannot be part of one
 */
export function assemblyOf(
  items: readonly PlacedItem[],
  { name, kit, pivot, into }: AssemblyRequest,
): { readonly use: AssemblyUse; readonly operations: Operation[] } {
  const other = items.find(({ kind }) => !ASSEMBLED_KINDS.includes(kind));
  if (other)
    throw new CoreError(
      'ASSEMBLY_KIND',
      `A ${specOf(other.kind).words.one} cannot be part of an assembly: it keeps to the axes of its level and does not turn.`,
      { kind: other.kind },
    );
  const stratum: Stratum = { id: newId(), name, role: 'structure', owner: null, kit, assemblies: nestedIn(items) };
  const away: Vector3 = [-pivot[0], -pivot[1], -pivot[2]];
  const moved = items.map((one) =>
    placedItem<ItemKind>(one.stratum, one.kind, changedItem(one.kind, withoutGroup(one), movedFields(one, away))),
  );
  const content = contentOfSome(new Set(items.map(({ kind }) => kind)), (kind) =>
    ofKind(moved, kind).map(({ item }) => item),
  );
  const use: AssemblyUse = { id: newId(), assembly: stratum.id, position: pivot, turn: 0 };
  return {
    use,
    operations: [
      create(RECORDS_DOCUMENT, 'stratum', stratum),
      ...copiedItems(stratum.id, { ...EMPTY_CONTENT, ...content }).operations,
      ...items.map(({ stratum: from, kind, item }) => remove(from, kind, item)),
      create(into, 'assembly', use),
    ],
  };
}

/** Puts what a use brings into its stratum as things of their own, and takes the use away. */
export function partedFrom(
  stratum: string,
  use: AssemblyUse,
  assembly: StratumContent,
): ReturnType<typeof copiedItems> {
  const { copies, operations } = copiedItems(stratum, instantiateOnce(use, assembly));
  return { copies, operations: [...operations, remove(stratum, 'assembly', use)] };
}

/** Gives a use an assembly of its own: as the shared one with what the use has otherwise. */
export function ownCopy(
  stratum: string,
  use: AssemblyUse,
  record: Stratum,
  assembly: StratumContent,
  name: string,
): Operation[] {
  const own: Stratum = { ...record, id: newId(), name };
  return [
    create(RECORDS_DOCUMENT, 'stratum', own),
    ...copiedItems(own.id, patchedContent({ ...assembly, patch: patchesOfUse(use) }, use.id)).operations,
    ...replaced(stratum, use, own.id),
  ];
}

/** Lets another assembly stand where one stands; what the use had otherwise is of the old one, and goes. */
export function replaced(stratum: string, use: AssemblyUse, by: string): Operation[] {
  return [
    setField(stratum, 'assembly', use, 'assembly', by),
    ...(use.patches ? [setField(stratum, 'assembly', use, 'patches', null)] : []),
  ];
}

/** The middle of the foot of a box around things. */
export function footOf(
  boxes: readonly { readonly min: readonly number[]; readonly max: readonly number[] }[],
): Vector3 {
  const least = (k: number): number => Math.min(...boxes.map(({ min }) => min[k]));
  const most = (k: number): number => Math.max(...boxes.map(({ max }) => max[k]));
  return [toMicro((least(0) + most(0)) / 2), toMicro(least(1)), toMicro((least(2) + most(2)) / 2)];
}

function nestedIn(items: readonly PlacedItem[]): string[] {
  return [...new Set(items.flatMap(assembliesIn))].sort();
}

export function placedAssembly(assembly: string, position: Vector3): AssemblyUse {
  return { id: newId(), assembly, position, turn: 0 };
}

/** A group of another stratum means nothing here. */
function withoutGroup({ kind, item }: PlacedItem): Item {
  const fields = Object.entries(plainRecord<Item>(item)).filter(([field]) => field !== 'group');
  return storedRecord<ItemKind>(kind, Object.fromEntries(fields));
}
