import {
  PLACED_KINDS,
  RECORDS_DOCUMENT,
  applyOperations,
  invertOperations,
  movedFields,
  operationsForOne,
  randomStream,
  recordIn,
  turnedFields,
  valueAt,
  type DocumentState,
  type Edit,
  type Item,
  type ItemKind,
  type Json,
  type JsonRecord,
  type Operation,
  type Patch,
  type AnyItem,
} from '@stravel/core';

const STRATA = ['base', 'own', 'flat', 'nest', 'rooms'] as const;
const PERSONS = ['ada', 'ben'] as const;

/** Makes one random edit after another over a collection, and keeps up with what stands. */
export class RandomEdits {
  private readonly random = randomStream('golden edits');
  private readonly done: Edit[] = [];
  private readonly undone = new Set<string>();
  private count = 0;

  constructor(private readonly documents: ReadonlyMap<string, DocumentState>) {}

  next(): Edit {
    const person = this.pick(PERSONS);
    const undo = this.random.below(10) === 0 ? this.lastOf(person) : undefined;
    const operations = undo ? invertOperations(undo.operations) : this.operations();
    const label = undo ? `Undo ${undo.label}` : this.pick(['Move', 'Turn', 'Rename', 'Change']);
    return {
      id: `golden-${String(++this.count).padStart(5, '0')}`,
      person,
      label,
      undoes: undo?.id ?? null,
      operations,
    };
  }

  /** Says that an edit was taken. */
  taken(edit: Edit): void {
    for (const [name, state] of this.documents)
      applyOperations(
        state,
        edit.operations.filter(({ document }) => document === name),
      );
    this.done.push(edit);
    if (edit.undoes !== null) this.undone.add(edit.undoes).add(edit.id);
  }

  private lastOf(person: string): Edit | undefined {
    return this.done.slice(-40).findLast((edit) => edit.person === person && !this.undone.has(edit.id));
  }

  private operations(): Operation[] {
    const roll = this.random.below(100);
    if (roll < 8) return this.recordChange();
    const stratum = this.pick(STRATA);
    const state = this.state(stratum);
    if (roll < 12) return this.copied(stratum, state);
    const kinds = roll < 70 ? PLACED_KINDS.filter((one) => (state.get(one)?.size ?? 0) > 0) : this.kindsIn(state);
    if (kinds.length === 0) return this.recordChange();
    const kind = this.pick(kinds);
    const record = this.pick([...(state.get(kind)?.values() ?? [])]);
    const id = record['id'] as string;
    const change = (fields: Readonly<Record<string, Json>>): Operation[] =>
      Object.entries(fields).map(([field, after]) => ({
        document: stratum,
        kind,
        id,
        field,
        before: valueAt(record, field),
        after,
      }));
    if (roll < 15 && kind !== 'group' && (state.get(kind)?.size ?? 0) > 1)
      return [{ document: stratum, kind, id, field: null, before: record, after: null }];
    const operations =
      roll < 70
        ? change(this.placed({ kind, item: record } as unknown as AnyItem))
        : change(this.changed(kind, record));
    return stratum === 'base' && roll % 5 === 0 && !['recipe', 'pin', 'patch'].includes(kind)
      ? this.forOne(operations)
      : operations;
  }

  private placed(item: AnyItem): Readonly<Record<string, Json>> {
    if (this.random.below(3) === 0) return turnedFields(item, this.random.below(360), [1, 2]);
    return movedFields(item, [this.random.between(-2, 2), 0, this.random.between(-2, 2)]);
  }

  private changed(kind: ItemKind, record: JsonRecord): Readonly<Record<string, Json>> {
    if (kind === 'pin') return { hidden: record['hidden'] !== true };
    if (kind === 'link') return { once: record['once'] !== true, 'arguments.speed': this.random.below(9) };
    if (kind === 'group') return { switchedOff: record['switchedOff'] !== true };
    if (kind === 'recipe') return { seed: `seed ${this.random.below(1000)}` };
    if (kind === 'patch') return {};
    if (['placement', 'marker', 'volume'].includes(kind) && this.random.below(2) === 0) {
      return { 'values.note': this.random.below(3) === 0 ? null : `note ${this.random.below(100)}` };
    }
    return { group: this.random.below(3) === 0 ? null : 'lamps' };
  }

  private copied(stratum: string, state: DocumentState): Operation[] {
    const kinds = this.kindsIn(state).filter((one) => one !== 'patch' && one !== 'pin');
    if (kinds.length === 0) return this.recordChange();
    const kind = this.pick(kinds);
    const record = this.pick([...(state.get(kind)?.values() ?? [])]);
    const id = `${kind}-copy-${this.count}`;
    return [{ document: stratum, kind, id, field: null, before: null, after: { ...record, id } }];
  }

  private recordChange(): Operation[] {
    const state = this.state(RECORDS_DOCUMENT);
    const kind = this.pick(['level', 'level', 'set', 'entry', 'stratum'] as const);
    const record = this.pick([...(state.get(kind)?.values() ?? [])]);
    const base = { document: RECORDS_DOCUMENT, kind, id: record['id'] as string };
    if (kind === 'level' && this.random.below(2) === 0) {
      return [
        { ...base, field: 'values.whole', before: valueAt(record, 'values.whole'), after: this.random.below(10) },
      ];
    }
    return [{ ...base, field: 'name', before: valueAt(record, 'name'), after: `${kind} ${this.random.below(1000)}` }];
  }

  private forOne(operations: readonly Operation[]): Operation[] {
    const state = this.state('base');
    const item = (kind: ItemKind, id: string): Item | undefined =>
      recordIn(state, kind, id) as unknown as Item | undefined;
    const patch = (id: string): Patch | undefined => state.get('patch')?.get(id) as unknown as Patch | undefined;
    const patches = (): Iterable<Patch> => [...(state.get('patch')?.values() ?? [])] as unknown as Patch[];
    const known = operations.every(({ kind, id }) => item(kind as ItemKind, id));
    return known
      ? operationsForOne({ id: 'base', level: this.pick(['one', 'two', 'three']), item, patch, patches }, operations)
      : [...operations];
  }

  private kindsIn(state: DocumentState): ItemKind[] {
    return [...state.keys()].filter((kind) => (state.get(kind)?.size ?? 0) > 0) as ItemKind[];
  }

  private state(document: string): DocumentState {
    return this.documents.get(document) as DocumentState;
  }

  private pick<T>(list: readonly T[]): T {
    return list[this.random.below(list.length)];
  }
}
