import { CoreError } from '../errors';
import type { LevelOrder } from '../model/unlock';
import { RECORDS_DOCUMENT, type EditableKind } from '../model/records';
import { overIdsOf } from '../items';
import type { ItemKind } from '../model/items';
import type { JsonRecord } from './apply-operation';

interface Touched {
  readonly document: string;
  readonly kind: EditableKind;
  readonly id: string;
  readonly record: JsonRecord | undefined;
}

/**
 * Checks that what an edit leaves behind points at things that are there.
 * @param find gives a small record as it would stand after the edit
 * @throws CoreError 'EDIT_REFERENCE' naming who points at what
 */
export function checkEditReferences(
  touched: readonly Touched[],
  find: (kind: EditableKind, id: string) => JsonRecord | undefined,
): void {
  const need = (of: string, kind: EditableKind, id: unknown): void => {
    if (typeof id !== 'string' || find(kind, id)) return;
    throw new CoreError('EDIT_REFERENCE', `edit: ${of} points at the ${kind} ${id}, which is not there`, { kind, id });
  };
  for (const { document, kind, id, record } of touched) {
    if (!record) continue;
    const of = `${kind} ${id}`;
    if (document !== RECORDS_DOCUMENT) {
      need(of, 'stratum', document);
      overIdsOf(kind as ItemKind, record, (one, { to, isStrict }) => {
        if (isStrict) need(of, to as EditableKind, one);
        return one;
      });
      continue;
    }
    if (kind === 'level') {
      need(of, 'set', record['set']);
      for (const entry of record['strata'] as readonly { stratum: string }[]) need(of, 'stratum', entry.stratum);
    } else if (kind === 'set') {
      checkSetParents(id, record, find);
    } else if (kind === 'piece') {
      need(of, 'kit', record['kit']);
    } else if (kind === 'cellGrid') {
      need(of, 'level', id);
    } else if (kind === 'rehearsal') {
      need(of, 'level', record['level']);
      need(of, 'device', record['device']);
    } else if (kind === 'stratum') {
      need(of, 'level', record['owner']);
      need(of, 'kit', record['kit']);
      for (const assembly of (record['assemblies'] as readonly string[] | null | undefined) ?? [])
        need(of, 'stratum', assembly);
    } else if (kind === 'collection') {
      for (const device of (record['readiness'] as { readonly devices: readonly string[] } | null | undefined)
        ?.devices ?? [])
        need(of, 'device', device);
    } else if (kind === 'entry' || kind === 'tableView') {
      need(of, 'register', record['register']);
    } else if (kind === 'levelOrder') {
      need(of, 'level', id);
      const { rules, gains, resets } = record as unknown as LevelOrder;
      for (const rule of rules) {
        if (rule.kind === 'after') rule.levels.forEach((level) => need(of, 'level', level));
        if (rule.kind === 'value') need(of, 'carriedValue', rule.value);
      }
      for (const value of [...gains.map((gain) => gain.value), ...resets]) need(of, 'carriedValue', value);
    } else if (kind === 'field') {
      need(of, 'register', record['register']);
      if (record['type'] === 'entry') need(of, 'register', record['target']);
      if (record['type'] === 'level') need(of, 'set', record['target']);
      if (record['figure'] === 'placements') need(of, 'piece', record['counted']);
    }
  }
}

function checkSetParents(
  id: string,
  record: JsonRecord,
  find: (kind: EditableKind, id: string) => JsonRecord | undefined,
): void {
  const seen = new Set([id]);
  let parent = record['parent'];
  while (typeof parent === 'string') {
    if (seen.has(parent)) {
      throw new CoreError('EDIT_REFERENCE', `edit: set ${id} would stand inside itself`, { kind: 'set', id });
    }
    seen.add(parent);
    const above = find('set', parent);
    if (!above)
      throw new CoreError('EDIT_REFERENCE', `edit: set ${id} points at the set ${parent}, which is not there`, {
        kind: 'set',
        id: parent,
      });
    parent = above['parent'];
  }
}
