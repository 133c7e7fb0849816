import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import {
  FIELD_FIGURES,
  FIELD_TYPES,
  MARKER_KINDS,
  fieldsOf,
  planFieldChange,
  plainText,
  type ChangeOutcome,
  type Field,
  type FieldChange,
  type FieldType,
  type LinkLookup,
  type RecordTables,
} from '@stravel/core';
import { EMPTY_DRAFT, choiceLines, draftOf, keyOf, readDraft, renamedChoices, type FieldDraft } from './field-draft';
import { Dialog } from '../../../ui/dialog';

export interface FieldDialogData {
  /** The field as it is; null for a new one. */
  readonly field: Field | null;
  /** Id, order and register of the field. */
  readonly base: Pick<Field, 'id' | 'order' | 'register'>;
  readonly tables: RecordTables;
  readonly links: LinkLookup;
}

/** What was decided: the change, in words and whole. */
export interface FieldDecision {
  readonly label: string;
  readonly change: FieldChange;
}

const TYPE_WORDS: Partial<Record<FieldType, string>> = { level: 'link to a level', entry: 'link to a register entry' };
const OUTCOMES: readonly (readonly [ChangeOutcome, string])[] = [
  ['same', 'stay as they are'],
  ['converted', 'are converted'],
  ['kept', 'cannot be converted: they stay, and each becomes a finding until you decide'],
  ['empty', 'are empty and must be filled'],
  ['twice', 'are duplicates'],
  ['dropped', 'are deleted'],
];
const MAX_SHOWN = 100;

/** Writes a field, and shows beforehand what happens to every value. */
@Component({
  selector: 'sv-field-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './field-dialog.html',
  styleUrls: ['../bulk/preview-rows.scss', './field-dialog.scss'],
})
export class FieldDialog extends Dialog<FieldDialogData, FieldDecision> {
  static readonly size = { width: '980px', maxWidth: '96vw' };
  private readonly taken = new Set(
    fieldsOf(this.data.tables, this.data.base.register ?? null)
      .filter(({ id }) => id !== this.data.base.id)
      .map(({ key }) => key),
  );
  /** What a figure may count one by one. */
  readonly countables = computed(() =>
    this.draft().figure === 'markers'
      ? MARKER_KINDS.map((kind) => ({ id: kind as string, name: `${kind} markers` }))
      : Object.values(this.data.tables.piece)
          .map(({ id, name }) => ({ id, name: `placements of ${name}` }))
          .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );
  readonly types = FIELD_TYPES.map((type) => ({ type, word: TYPE_WORDS[type] ?? type }));
  readonly figures = FIELD_FIGURES;
  readonly registers = Object.values(this.data.tables.register);
  readonly sets = Object.values(this.data.tables.set).filter(({ binned }) => binned === null);
  readonly draft = signal<FieldDraft>(this.data.field ? draftOf(this.data.field, this.data.links) : EMPTY_DRAFT);
  readonly deletes = signal(false);
  readonly fillsEmpty = signal(false);
  readonly reading = computed(() => readDraft(this.draft(), this.data.base, this.taken, this.data.links));
  readonly faults = computed(() => this.reading().faults ?? {});
  readonly change = computed((): FieldChange | undefined => {
    const { field: before, tables } = this.data;
    if (this.deletes()) return planFieldChange(tables, before, null);
    const after = this.reading().field;
    if (!after) return undefined;
    return planFieldChange(tables, before, after, {
      fillEmpty: this.fillsEmpty(),
      renamedChoices: renamedChoices(before?.choices ?? [], choiceLines(this.draft().choices)),
    });
  });
  readonly counts = computed(() => {
    const counts = this.change()?.counts;
    return counts
      ? OUTCOMES.filter(([outcome]) => counts[outcome] > 0).map(([outcome, words]) => ({
          outcome,
          count: counts[outcome],
          words,
        }))
      : [];
  });
  readonly shown = computed(() => {
    const changed = (this.change()?.values ?? []).filter(({ outcome }) => outcome !== 'same');
    return {
      rows: changed.slice(0, MAX_SHOWN).map((value) => ({
        ...value,
        beforeText: plainText(value.before) || '—',
        afterText: value.outcome === 'kept' ? 'stays' : plainText(value.after) || '—',
      })),
      more: Math.max(0, changed.length - MAX_SHOWN),
    };
  });

  set<K extends keyof FieldDraft>(part: K, value: FieldDraft[K]): void {
    this.draft.update((draft) => {
      const next = { ...draft, [part]: value };
      // A new field's key follows its name until it is given one.
      const follows =
        this.data.field === null &&
        part === 'name' &&
        (draft.key === '' || draft.key === keyOf(draft.name, this.taken));
      return follows ? { ...next, key: keyOf(next.name, this.taken) } : next;
    });
  }

  keep(): void {
    const change = this.change();
    if (!change) return;
    const name = this.draft().name.trim();
    const label = this.deletes()
      ? `delete the field ${name}`
      : this.data.field
        ? `change the field ${name}`
        : `new field ${name}`;
    this.dialog.close({ label, change });
  }
}
