import { Injectable, computed, inject, signal } from '@angular/core';
import { Sheets } from '../../../level-desk/sheets';
import { counted, heldAt, isSimilar, matchesSelection, specOf, type Item, type SelectionQuery } from '@stravel/core';
import { OpenLevel } from '../../../document/level/open-level';
import type { PickItem } from '../../../plate/pick-item';
import { Session } from '../../../session';
import { Ask, nameFault } from '../../../ui/ask';
import { LayoutDesk } from '../editing/layout-desk';
import type { ItemRef } from '../store/layout-store';
import { readSelections, type KeptSelections } from './kept-selections';
import { SelectSheet, type SelectData } from './select-sheet';

/** Selects by what things are; keeps selections for this person. */
@Injectable()
export class SelectDesk {
  private readonly sheets = inject(Sheets);
  private readonly ask = inject(Ask);
  private readonly session = inject(Session);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly changed = signal(0);
  private readonly key = computed(
    () =>
      `stravel.selections.${this.session.collection()?.id ?? ''}.${this.session.person()?.id ?? ''}.${this.openLevel.level()?.id ?? ''}`,
  );
  private readonly kept = computed((): KeptSelections => {
    this.changed();
    return readSelections(localStorage.getItem(this.key()));
  });
  readonly names = computed(() => Object.keys(this.kept()));

  async find(): Promise<void> {
    const data: SelectData = { pieces: this.openLevel.piecesByName(), count: (query) => this.matching(query).length };
    const query = await this.sheets.open(SelectSheet, data);
    if (query) this.desk.select(this.matching(query));
  }

  similar(): void {
    const one = this.desk.one();
    if (one)
      this.desk.select(
        this.pickable().filter(
          (item) => item.kind === one.kind && isSimilar(one.kind, one.item, this.itemOf(item) ?? one.item),
        ),
      );
  }

  /** Selects what a cost comes from: the placements of a piece, the blocks of a material. @param cause as an address has it: 'piece' or 'blocks', a space, its id */
  uses(cause: string): void {
    const id = cause.slice(cause.indexOf(' ') + 1);
    const found = this.matching(cause.startsWith('piece ') ? { piece: id } : { material: id });
    this.desk.select(found);
    if (found.length === 0)
      this.desk.notify('None of them can be selected here: recipes or assemblies made them, or they are locked.');
  }

  /** Everything that is shown and can be changed. */
  all(): void {
    this.desk.select(this.pickable());
  }

  invert(): void {
    const { selection } = this.desk.state();
    const chosen = new Set(selection.map(({ id }) => id));
    this.desk.select(this.pickable().filter(({ id }) => !chosen.has(id)));
  }

  async keep(): Promise<void> {
    const { selection } = this.desk.state();
    const answers = await this.ask.for({
      title: 'Save this selection',
      text: `${counted(selection.length, 'object')}, for you only.`,
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: '', suggestions: this.names() }],
      command: 'Save',
      fault: ({ name }) => nameFault(name),
    });
    if (!answers) return;
    localStorage.setItem(this.key(), JSON.stringify({ ...this.kept(), [String(answers['name']).trim()]: selection }));
    this.changed.update((n) => n + 1);
  }

  /** Selects what was kept, as far as it is still there. */
  take(name: string): void {
    const wanted = this.kept()[name] ?? [];
    const there = wanted.filter((ref) => this.itemOf(ref));
    this.desk.select(there);
    if (there.length < wanted.length)
      this.desk.notify(`${wanted.length - there.length} of ${wanted.length} are no longer in the level.`);
  }

  private matching(query: SelectionQuery): PickItem[] {
    const strata = new Map(this.openLevel.strata().map((document) => [document.id, document]));
    return this.pickable().filter(({ stratum, kind, id, bounds }) => {
      const document = strata.get(stratum);
      const item = document?.item(kind, id);
      if (!document || !item) return false;
      const pieceName = specOf(kind).name(item, { piece: (id) => heldAt(this.openLevel.pieces(), id)?.name ?? '' });
      return matchesSelection(query, { kind, item, pieceName, bounds, groups: document.tables.group });
    });
  }

  private pickable(): PickItem[] {
    const own = new Set(this.openLevel.strata().map(({ id }) => id));
    return (this.desk.plate()?.everything() ?? []).filter(
      (item) => own.has(item.stratum) && !this.desk.isItemLocked(item),
    );
  }

  private itemOf({ stratum, kind, id }: ItemRef): Item | undefined {
    return this.openLevel.stratum(stratum)?.item(kind, id);
  }
}
