import { groupChain } from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';

/** Why some items must not be deleted by accident: the guards of the groups that they stand in, each once. */
export function guardsOf(document: StratumDocument, groups: Iterable<string | null | undefined>): string[] {
  const guards = new Set<string>();
  for (const group of groups) {
    for (const id of groupChain(document.tables.group, group)) {
      const one = document.tables.group.get(id);
      if (one && one.guard !== '') guards.add(`${one.name}: ${one.guard}`);
    }
  }
  return [...guards];
}
