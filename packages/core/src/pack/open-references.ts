import { finding, type Finding } from '../findings';
import { overIdsOf, listOf, specOf } from '../items';
import { packedKinds } from '../items/stored';
import type { Item, ItemKind, StratumContent } from '../model/items';
import type { Level } from '../model/level';
import { isRecordKind } from '../records';
import type { RecordTables } from '../model/records';

/** What a packed level holds. */
export interface ReferringLevel {
  readonly level: Level;
  /** As it is packed: local changes laid over, parked content left out. */
  readonly strata: readonly { readonly stratum: string; readonly content: StratumContent }[];
}

/** What the items of a packed level refer to that no file of the pack has. */
export function openReferences({ level, strata }: ReferringLevel, records: RecordTables): Finding[] {
  const kinds = packedKinds();
  const known = new Set(
    strata.flatMap(({ content }) => kinds.flatMap((kind) => listOf(content, kind).map(({ id }) => id))),
  );
  const findings: Finding[] = [];
  for (const { stratum, content } of strata) {
    for (const kind of kinds) {
      for (const item of listOf(content, kind)) {
        overIdsOf<Item>(kind, item, (id, { to, field }) => {
          const isThere = isRecordKind(to) ? Object.hasOwn(records[to], id) : known.has(id);
          if (!isThere) findings.push(openReference(level, stratum, kind, item, field, id));
          return id;
        });
      }
    }
  }
  return findings;
}

function openReference(level: Level, stratum: string, kind: ItemKind, item: Item, field: string, id: string): Finding {
  const { words } = specOf(kind);
  return finding({
    code: 'PACK_REFERENCE_OPEN',
    desk: 'pack',
    severity: 'error',
    subject: `${level.id}.${item.id}.${field}`,
    place: { level: level.id, stratum, item: item.id },
    message: `A ${words.one} in ${level.name} refers to ${id} (${field}), which the pack does not have`,
    why: 'The game would look for it in vain. Choose what is in the level, or clear the field.',
  });
}
