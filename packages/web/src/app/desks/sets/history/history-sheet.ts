import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  RECORDS_DOCUMENT,
  errorText,
  heldAt,
  isItemKind,
  plainRecordIfAny,
  recordInTables,
  revertOperations,
  type Item,
  type LoggedEdit,
  type Operation,
} from '@stravel/core';
import { ApiClient } from '../../../api/api-client';
import { DocumentRegistry } from '../../../document/document-registry';
import { recordsFeature } from '../../../document/records/records-store';
import type { StratumDocument } from '../../../document/stratum-document';
import { EditLog } from '../../../edits/edit-log';
import { Session } from '../../../session';
import { FieldContext } from '../fields/field-context';
import { describeEdit } from './describe-edit';
import { SheetHead } from '../../../level-desk/sheet-head';
import { Sheet } from '../../../level-desk/sheets';

interface LevelHistory {
  readonly edits: readonly LoggedEdit[];
  readonly strata: readonly string[];
  readonly hasMore: boolean;
}

/** What happened to a level, by whom and when; and the way back to any of it. */
@Component({
  selector: 'sv-history-sheet',
  imports: [DatePipe, SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-sheet-head [heading]="'History of ' + level().name" (left)="close()" />
    <div
      class="list"
      role="listbox"
      aria-label="Changes, newest first"
      tabindex="0"
      (keydown)="key($event)"
      [attr.aria-activedescendant]="shown() ? 'edit-' + shown()?.sequence : null"
    >
      @for (edit of edits(); track edit.id; let first = $first) {
        <div role="option" [id]="'edit-' + edit.sequence" [attr.aria-selected]="edit.id === shown()?.id" (click)="selected.set(edit.id)">
          <span>{{ edit.undoes ? 'Undoes: ' : '' }}{{ edit.label }}</span>
          <span class="soft">{{ edit.at | date: 'd MMM HH:mm:ss' }} · {{ people().get(edit.person) ?? 'someone' }}{{ first ? ' · current' : '' }}</span>
        </div>
      } @empty {
        <p class="soft">{{ failure() || (isLoading() ? 'Reading …' : 'No changes since the level was added.') }}</p>
      }
      @if (hasMore()) {
        <button class="chip" (click)="more()">Older changes</button>
      }
    </div>
    <div class="what" aria-live="polite">
      @for (change of changes(); track $index) {
        <p>
          <strong>{{ change.what }}</strong>
          @if (change.before) {
            <span class="mono soft">{{ change.before }}</span> →
          }
          <span class="mono">{{ change.after }}</span>
        </p>
      }
      @if (beyond() > 0) {
        <p class="soft">The same edit did {{ beyond() }} more elsewhere; going back does not change that.</p>
      }
      @if (shared().length > 0) {
        <p class="soft">Shared strata are not included: {{ shared().join(', ') }}. Going back does not change them, because other levels use them.</p>
      }
      @if (failure(); as failure) {
        <p class="over" role="alert">{{ failure }}</p>
      }
    </div>
    <div class="row">
      <button class="chip" [disabled]="!shown()" (click)="back(true)">Go back to before this</button>
      <button class="chip strong" [disabled]="!shown() || shown() === edits().at(0)" (click)="back(false)">Go back to this</button>
    </div>
  `,
  styleUrl: '../../../level-desk/sheet.scss',
  styles: `
    .list {
      flex: 3 1 0;
      min-height: 0;
      overflow: auto;
    }
    .what {
      flex: 2 1 0;
      min-height: 0;
      overflow: auto;
      padding: 4px 12px;
      border-top: 1px solid var(--line);
    }
    [role='option'] {
      display: grid;
      padding: 4px 10px;
      border-bottom: 1px solid var(--line);
      border-left: 3px solid transparent;
      cursor: pointer;
    }
    [role='option'] .soft {
      font-size: 12px;
    }
    [aria-selected='true'] {
      background: var(--brine-wash);
      border-left-color: var(--brine);
    }
    .list > :is(p, button) {
      margin: 8px 12px;
    }
    .what p {
      margin: 6px 0;
      overflow-wrap: anywhere;
    }
    .what strong {
      display: block;
    }
  `,
})
export class HistorySheet extends Sheet<string> {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly log = inject(EditLog);
  private readonly documents = inject(DocumentRegistry);
  private readonly context = inject(FieldContext);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly first = this.tables().level[this.data];

  readonly level = computed(() => heldAt(this.tables().level, this.data) ?? this.first);
  readonly edits = signal<readonly LoggedEdit[]>([]);
  private readonly strata = signal<ReadonlySet<string>>(new Set());
  readonly hasMore = signal(false);
  readonly isLoading = signal(true);
  readonly failure = signal('');
  readonly people = signal<ReadonlyMap<string, string>>(new Map());
  readonly selected = signal('');
  readonly shown = computed(() => this.edits().find(({ id }) => id === this.selected()) ?? this.edits().at(0));
  readonly changes = computed(() => {
    const edit = this.shown();
    return edit ? describeEdit(edit, this.data, this.strata(), this.tables(), this.context.links()) : [];
  });
  readonly beyond = computed(
    () => this.shown()?.operations.filter((operation) => !this.concerns(operation)).length ?? 0,
  );
  readonly shared = computed(() =>
    this.level().strata.flatMap(({ stratum }) => {
      const record = this.tables().stratum[stratum] as
        { readonly name: string; readonly owner: string | null } | undefined;
      return record && record.owner !== this.data ? [record.name] : [];
    }),
  );

  constructor() {
    super();
    void this.start();
  }

  async more(): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    try {
      const below = this.edits().at(-1)?.sequence;
      const url = `/api/collections/${collection.id}/levels/${this.data}/history${below === undefined ? '' : `?below=${below}`}`;
      const { edits, strata, hasMore } = await this.api.json<LevelHistory>(url);
      this.edits.update((known) => [...known, ...edits]);
      this.strata.update((known) => new Set([...known, ...strata]));
      this.hasMore.set(hasMore);
    } catch (error) {
      this.failure.set(`The history could not be read. ${errorText(error)}`);
    } finally {
      this.isLoading.set(false);
    }
  }

  key(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const edits = this.edits();
    const at = edits.findIndex(({ id }) => id === this.shown()?.id) + (event.key === 'ArrowDown' ? 1 : -1);
    if (at >= 0 && at < edits.length) this.selected.set(edits[at].id);
    event.preventDefault();
  }

  /** Brings the level to how it stood after the edit shown, or before it. */
  async back(before: boolean): Promise<void> {
    const edit = this.shown();
    if (!edit) return;
    try {
      const since = [...this.edits()]
        .reverse()
        .filter(({ sequence }) => sequence > edit.sequence || (before && sequence === edit.sequence));
      const documents = new Map<string, StratumDocument>();
      const ids = new Set(
        since.flatMap(({ operations }) =>
          operations.filter((one) => this.concerns(one)).map(({ document }) => document),
        ),
      );
      for (const id of ids) if (id !== RECORDS_DOCUMENT) documents.set(id, await this.documents.stratum(id));
      const tables = this.tables();
      const operations = revertOperations(
        since,
        (operation) => this.concerns(operation),
        ({ document, kind, id }) =>
          document === RECORDS_DOCUMENT
            ? plainRecordIfAny(recordInTables(tables, kind, id))
            : isItemKind(kind)
              ? plainRecordIfAny<Item>(documents.get(document)?.item(kind, id))
              : undefined,
      );
      await this.log.commit(`${this.level().name} back to ${before ? 'before ' : ''}“${edit.label}”`, operations);
      this.close();
    } catch (error) {
      this.failure.set(`Nothing was changed. ${errorText(error)}`);
    }
  }

  private concerns({ document, id }: Operation): boolean {
    return document === RECORDS_DOCUMENT ? id === this.data || this.isOwn(id) : this.isOwn(document);
  }

  /** Whether a stratum is the level's alone, or is gone; one that others stand on by now is left as it is. */
  private isOwn(stratum: string): boolean {
    const record = this.tables().stratum[stratum] as { readonly owner: string | null } | undefined;
    return this.strata().has(stratum) && (!record || record.owner === this.data);
  }

  private async start(): Promise<void> {
    // The last changes must be in the log before it is read.
    await this.log.settled();
    await this.more();
    const people = await this.api.people().catch(() => []);
    this.people.set(new Map(people.map(({ id, name }) => [id, name])));
  }
}
