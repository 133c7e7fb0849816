import { CoreError } from '../../errors';
import type { AssemblyUse } from '../../model/assembly';
import type { Link } from '../../model/link';
import {
  EMPTY_CONTENT,
  ITEM_KINDS,
  type Item,
  type ItemKind,
  type Stratum,
  type StratumContent,
} from '../../model/stratum';
import { withoutAside } from '../groups';
import { patchedContent } from '../patched-content';
import { movedFields, turnedFields, type PlacedItemOf } from '../place-items';
import { patchesOfUse } from './use-patches';

/** What an assembly can hold: grids keep to the axes and recipes belong to a stratum, so that neither can be turned with it. */
export const ASSEMBLED_KINDS = [
  'block',
  'placement',
  'marker',
  'divider',
  'volume',
  'path',
  'link',
  'assembly',
] as const satisfies readonly ItemKind[];
type AssembledKind = (typeof ASSEMBLED_KINDS)[number];

/** Most things that the assemblies of one stratum may come to. */
const MAX_LAID = 1000000;

/** Id of a thing of an assembly where it stands. */
export function laidId(use: string, item: string): string {
  return `${use}.${item}`;
}

/**
 * A stratum with its assemblies laid out: things stand in their place under `laidId`, in the group of their use, and links within lead to them.
 * Uses whose assembly is not there or holds itself are left as they are.
 * @param contentOf an assembly's content as it is stored
 * @throws CoreError 'ASSEMBLY_TOO_LARGE' for more than a million things
 */
export function withAssemblies(
  content: StratumContent,
  contentOf: (assembly: string) => StratumContent | undefined,
): StratumContent {
  if (content.assembly.length === 0) return content;
  const laid = new Map<ItemKind, Item[]>();
  const left: AssemblyUse[] = [];
  let count = 0;
  const lay = (use: AssemblyUse, around: readonly string[]): void => {
    const inner = around.includes(use.assembly) ? undefined : contentOf(use.assembly);
    if (!inner) {
      left.push(use);
      return;
    }
    const once = instantiateOnce(use, inner);
    for (const nested of once.assembly) lay(nested, [...around, use.assembly]);
    for (const kind of ASSEMBLED_KINDS) {
      for (const item of kind === 'assembly' ? [] : once[kind]) {
        if (++count > MAX_LAID)
          throw new CoreError(
            'ASSEMBLY_TOO_LARGE',
            `assembly: those of one stratum come to more than ${MAX_LAID} things`,
            { assembly: use.assembly },
          );
        const list = laid.get(kind) ?? [];
        laid.set(kind, list);
        list.push(item);
      }
    }
  };
  for (const use of content.assembly) lay(use, []);
  const lists = ITEM_KINDS.map((kind): readonly [ItemKind, readonly Item[]] => {
    if (kind === 'assembly') return [kind, left];
    const more = laid.get(kind);
    return [
      kind,
      more
        ? [...(content[kind] as readonly Item[]), ...more].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0))
        : content[kind],
    ];
  });
  return Object.fromEntries(lists) as unknown as StratumContent;
}

/** What one use brings, with the assemblies within it left whole. @param assembly as it is stored */
export function instantiateOnce(use: AssemblyUse, assembly: StratumContent): StratumContent {
  const standing = withoutAside(patchedContent({ ...assembly, patch: patchesOfUse(use) }, use.id));
  const within = new Set(ASSEMBLED_KINDS.flatMap((kind) => standing[kind].map(({ id }) => id)));
  const lists = ASSEMBLED_KINDS.map((kind) => [kind, standing[kind].map((item) => laidItem(use, kind, item, within))]);
  return { ...EMPTY_CONTENT, ...Object.fromEntries(lists) } as StratumContent;
}

/** A thing of an assembly as it stands in a use of it. @param within ids of all that stands in the assembly */
function laidItem(use: AssemblyUse, kind: AssembledKind, item: Item, within: ReadonlySet<string>): Item {
  const id = laidId(use.id, item.id);
  if (kind === 'link') {
    const { emitter, target } = item as Link;
    const end = (of: string): string => (within.has(of) ? laidId(use.id, of) : of);
    return { ...(item as Link), id, emitter: end(emitter), target: end(target) };
  }
  const turned = { ...item, ...turnedFields({ kind, item } as PlacedItemOf, use.turn, [0, 0]) } as Item;
  const moved = { ...turned, ...movedFields({ kind, item: turned } as PlacedItemOf, use.position), id } as Record<
    string,
    unknown
  >;
  if (use.group) moved['group'] = use.group;
  else delete moved['group'];
  return moved as unknown as Item;
}

/** All assemblies that strata may hold, within each other too. @param records the strata of the collection by id */
export function assembliesWithin(records: Readonly<Record<string, Stratum>>, strata: Iterable<string>): Set<string> {
  const found = new Set<string>();
  const waiting = [...strata];
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (!Object.hasOwn(records, id)) continue;
    for (const assembly of records[id].assemblies ?? []) {
      if (found.has(assembly)) continue;
      found.add(assembly);
      waiting.push(assembly);
    }
  }
  return found;
}

/** Whether a stratum would come to hold itself with an assembly in it. */
export function wouldHoldItself(
  records: Readonly<Record<string, Stratum>>,
  stratum: string,
  assembly: string,
): boolean {
  return assembly === stratum || assembliesWithin(records, [assembly]).has(stratum);
}
