import { CoreError } from '../../errors';
import type { AssemblyUse, ItemKind, ItemOfKind, StratumContent } from '../../model/items';
import { ITEMS, ITEM_KINDS, contentOfKinds, isOptionalField, kindsWith, listOf, overIdsOf, specOf } from '../../items';
import { turningAbout } from '../../items/place';
import type { Stratum } from '../../model/stratum';
import { withoutAside } from '../groups';
import { patchedContent } from '../patched-content';
import { patchesOfUse } from './use-patches';

/** What an assembly can hold: grids keep to the axes and recipes belong to a stratum, so that neither can be turned with it. */
export const ASSEMBLED_KINDS = kindsWith('assembled');

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
export function withAssemblies(content: StratumContent, contentOf: AssemblyContent): StratumContent {
  return layAssemblies(content, contentOf).content;
}

/** An assembly's content as it is stored, undefined where it is not there. */
export type AssemblyContent = (assembly: string) => StratumContent | undefined;

/** The same, and the uses that were laid out, those within others under their `laidId`. @throws CoreError as `withAssemblies` */
export function layAssemblies(
  content: StratumContent,
  contentOf: AssemblyContent,
): { readonly content: StratumContent; readonly uses: readonly AssemblyUse[] } {
  if (content.assembly.length === 0) return { content, uses: [] };
  const uses: AssemblyUse[] = [];
  const laid: Laid = {};
  const left: AssemblyUse[] = [];
  let count = 0;
  const lay = (use: AssemblyUse, around: readonly string[]): void => {
    const inner = around.includes(use.assembly) ? undefined : contentOf(use.assembly);
    if (!inner) {
      left.push(use);
      return;
    }
    uses.push(use);
    const { assembly: nested, ...rest } = instantiateOnce(use, inner);
    const once = { ...rest, assembly: [] };
    for (const one of nested) lay(one, [...around, use.assembly]);
    for (const kind of ITEM_KINDS) {
      count += once[kind].length;
      if (count > MAX_LAID)
        throw new CoreError(
          'ASSEMBLY_TOO_LARGE',
          `assembly: those of one stratum come to more than ${MAX_LAID} objects`,
          { assembly: use.assembly },
        );
      addItems(laid, once, kind);
    }
  };
  for (const use of content.assembly) lay(use, []);
  const lists = contentOfKinds((kind) => joinedItems(listOf(content, kind), laid, kind));
  return { content: { ...lists, assembly: left }, uses };
}

type Laid<K extends ItemKind = ItemKind> = { [P in K]?: ItemOfKind[P][] };

function addItems<K extends ItemKind>(laid: Laid<K>, once: StratumContent, kind: K): void {
  const items = listOf(once, kind);
  if (items.length === 0) return;
  const list = laid[kind] ?? [];
  for (const item of items) list.push(item);
  laid[kind] = list;
}

function joinedItems<K extends ItemKind>(
  own: readonly ItemOfKind[K][],
  laid: Laid<K>,
  kind: K,
): readonly ItemOfKind[K][] {
  const more: readonly ItemOfKind[K][] | undefined = laid[kind];
  return more ? [...own, ...more].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)) : own;
}

/** What one use brings, with the assemblies within it left whole. @param assembly as it is stored */
export function instantiateOnce(use: AssemblyUse, assembly: StratumContent): StratumContent {
  const standing = withoutAside(patchedContent({ ...assembly, patch: patchesOfUse(use) }, use.id));
  const within = new Set(ASSEMBLED_KINDS.flatMap((kind) => standing[kind].map(({ id }) => id)));
  return contentOfKinds((kind) =>
    ITEMS[kind].traits.assembled ? laidItems(use, kind, listOf(standing, kind), within) : [],
  );
}

/** Things of an assembly as they stand in a use of it. @param within ids of all that stands in the assembly */
function laidItems<K extends ItemKind>(
  use: AssemblyUse,
  kind: K,
  items: readonly ItemOfKind[K][],
  within: ReadonlySet<string>,
): ItemOfKind[K][] {
  const { place } = specOf(kind);
  const turning = turningAbout(use.turn, [0, 0]);
  const group = use.group && isOptionalField(kind, 'group') ? { group: use.group } : undefined;
  return items.map((item) => {
    const turned = place ? { ...item, ...place.turned(item, turning) } : item;
    const moved = place ? { ...turned, ...place.moved(turned, use.position) } : turned;
    const led = overIdsOf(kind, moved, (id, { to }) => (to === 'item' && within.has(id) ? laidId(use.id, id) : id));
    const laid = { ...led, id: laidId(use.id, item.id), ...group };
    if (!group) Reflect.deleteProperty(laid, 'group');
    return laid;
  });
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
