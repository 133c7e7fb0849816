import { CoreError } from '../errors';
import type { EditableKind, RecordTables } from '../model/records';
import { linkUses } from '../sets/links';
import type { JsonRecord } from './apply-operation';

interface Touched {
  readonly kind: EditableKind;
  readonly id: string;
  readonly record: JsonRecord | undefined;
}

/**
 * Checks that an edit removes no register, entry or carried value from under what still uses it.
 * @param after gives the small records as they would stand after the edit; asked for only when needed
 * @throws CoreError 'EDIT_REFERENCE' naming what is used and by whom
 */
export function checkRemovals(touched: readonly Touched[], after: () => RecordTables): void {
  const removed = touched.filter(({ kind, record }) => record === undefined && (kind === 'entry' || kind === 'register' || kind === 'carriedValue'));
  if (removed.length === 0) return;
  const tables = after();
  const uses = removed.some(({ kind }) => kind === 'entry') ? linkUses(tables) : new Map<string, never>();
  const refuse = (kind: string, id: string, by: string): never => {
    throw new CoreError('EDIT_REFERENCE', `edit: ${kind} ${id} cannot be removed, ${by} still uses it`, { kind, id });
  };
  for (const { kind, id } of removed) {
    const use = uses.get(id)?.[0];
    if (use) refuse(kind, id, `${use.field.name} of ${use.record.name}`);
    if (kind === 'carriedValue') {
      const user = Object.values(tables.levelOrder).find(
        ({ rules, gains, resets }) => resets.includes(id) || gains.some(({ value }) => value === id) || rules.some((rule) => rule.kind === 'value' && rule.value === id),
      );
      if (user) refuse(kind, id, `the level ${tables.level[user.id]?.name ?? user.id}`);
    }
    if (kind !== 'register') continue;
    const entry = Object.values(tables.entry).find(({ register }) => register === id);
    if (entry) refuse(kind, id, `its entry ${entry.name}`);
    const field = Object.values(tables.field).find(({ register, target, type }) => register === id || (type === 'entry' && target === id));
    if (field) refuse(kind, id, `the field ${field.name}`);
    const view = Object.values(tables.tableView).find(({ register }) => register === id);
    if (view) refuse(kind, id, `the view ${view.name}`);
  }
}
