import {
  ITEMS,
  RECORDS_DOCUMENT,
  fieldText,
  isItemKind,
  plainText,
  recordSpecOf,
  type Field,
  type FieldValue,
  type Json,
  type LinkLookup,
  type LoggedEdit,
  type Operation,
  type RecordTables,
} from '@stravel/core';

/** One thing that an edit did to a level. */
export interface DescribedChange {
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

const PARTS: Readonly<Record<string, string>> = {
  name: 'Name',
  code: 'Code',
  purpose: 'Purpose',
  set: 'Set',
  order: 'Place in its set',
  strata: 'Stack of strata',
  openSky: 'Open sky',
  bounds: 'Bounds',
  binned: 'In the bin since',
  rules: 'How it unlocks',
  gains: 'Rewards',
  resets: 'Resets on entry',
};

/** What an edit did to a level and to the strata that it owns: values one by one, content counted by kind. */
export function describeEdit(
  { operations }: LoggedEdit,
  level: string,
  strata: ReadonlySet<string>,
  tables: RecordTables,
  links: LinkLookup,
): DescribedChange[] {
  const fields = new Map(
    Object.values(tables.field).flatMap((field) => (field.register ? [] : [[field.key, field] as const])),
  );
  const changes: DescribedChange[] = [];
  const counted = new Map<string, Record<'added' | 'removed' | 'changed', Set<string>>>();
  for (const operation of operations) {
    const { document, kind, id } = operation;
    if (document !== RECORDS_DOCUMENT) {
      if (!strata.has(document)) continue;
      const key = `${document}\u0000${kind}`;
      const known = counted.get(key) ?? { added: new Set(), removed: new Set(), changed: new Set() };
      counted.set(key, known);
      known[operation.field !== null ? 'changed' : operation.before === null ? 'added' : 'removed'].add(id);
    } else if (id === level) changes.push(ofRecord(operation, fields, tables, links));
    else if (recordSpecOf(kind)?.ownedBy && strata.has(id)) changes.push(ofStratum(operation));
  }
  for (const [key, { added, removed, changed }] of counted) {
    const [stratum, kind] = key.split('\u0000');
    const words = [
      [added.size, 'added'],
      [removed.size, 'removed'],
      // What was added or removed as a whole was not changed besides.
      [[...changed].filter((id) => !added.has(id) && !removed.has(id)).length, 'changed'],
    ] as const;
    const text = words.flatMap(([count, word]) => (count > 0 ? [`${count} ${word}`] : [])).join(', ');
    const name = Object.hasOwn(tables.stratum, stratum) ? tables.stratum[stratum].name : 'a stratum that was deleted';
    changes.push({ what: `${plural(kind)} of ${name}`, before: '', after: text });
  }
  return changes;
}

function ofRecord(
  { kind, field, before, after }: Operation,
  fields: ReadonlyMap<string, Field>,
  tables: RecordTables,
  links: LinkLookup,
): DescribedChange {
  if (field === null)
    return {
      what: recordSpecOf(kind)?.ofLevel ?? kind,
      before: before === null ? '' : 'there',
      after: after === null ? 'gone' : 'there',
    };
  const key = field.startsWith('values.') ? field.slice('values.'.length) : '';
  const own = fields.get(key);
  const text = (value: Json): string => {
    if (own?.type === 'picture') return value === null ? '—' : `picture ${plainText(value as FieldValue).slice(0, 8)}`;
    if (own) return fieldText(own, value as FieldValue, links) || '—';
    if (field === 'set')
      return typeof value === 'string' && Object.hasOwn(tables.set, value) ? tables.set[value].name : '—';
    if (field === 'strata' && Array.isArray(value))
      return value.map((entry) => stratumName((entry as { stratum: string }).stratum, tables)).join(', ') || '—';
    if (value !== null && typeof value === 'object') return JSON.stringify(value);
    return plainText(value) || '—';
  };
  return {
    what: own?.name ?? (key ? `Field ${key}, which was deleted` : (PARTS[field] ?? field)),
    before: text(before),
    after: text(after),
  };
}

function ofStratum({ field, before, after }: Operation): DescribedChange {
  if (field === null) {
    const record = (before ?? after) as { readonly name?: string } | null;
    return {
      what: `Stratum ${record?.name ?? ''}`,
      before: before === null ? '' : 'there',
      after: after === null ? 'gone' : 'there',
    };
  }
  return {
    what: `${field === 'owner' ? 'Owner' : field === 'role' ? 'Role' : 'Name'} of a stratum`,
    before: plainText(before as FieldValue) || '—',
    after: plainText(after as FieldValue) || '—',
  };
}

const stratumName = (id: string, tables: RecordTables): string =>
  Object.hasOwn(tables.stratum, id) ? tables.stratum[id].name : 'one that was deleted';

function plural(kind: string): string {
  if (!isItemKind(kind)) return kind;
  const { many } = ITEMS[kind].words;
  return `${many[0].toUpperCase()}${many.slice(1)}`;
}
