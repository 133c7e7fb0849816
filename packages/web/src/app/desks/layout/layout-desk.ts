import { Injectable, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store } from '@ngrx/store';
import { RECORDS_DOCUMENT, valueAt, type ItemKind, type JsonRecord, type Operation, type Placement, type Stratum, type Vector3 } from '@stravel/core';
import { firstValueFrom } from 'rxjs';
import { DocumentRegistry } from '../../document/document-registry';
import { OpenLevel } from '../../document/level/open-level';
import { recordsFeature, selectReach } from '../../document/records/records-store';
import { EditLog } from '../../edits/edit-log';
import { create, newId, setField, setRecordField } from '../../edits/operations';
import { deleteItems, duplicateItems, moveItems, resizeItem, sizeOfItem, turnItems, type LayoutItem, type PlacedItem } from './item-edits';
import type { CardChange } from './parts/item-card';
import { handleFrame, stretchItem, type PlanExtent } from './plan-handles';
import { ReachDialog, type ReachDialogData } from './parts/reach-dialog';
import { layoutActions, layoutFeature, type ItemRef } from './store/layout-store';

/** What can be done on the Layout desk, and to what. */
@Injectable({ providedIn: 'root' })
export class LayoutDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly dialogs = inject(MatDialog);
  private readonly snacks = inject(MatSnackBar);
  private readonly registry = inject(DocumentRegistry);
  readonly openLevel = inject(OpenLevel);
  readonly state = this.store.selectSignal(layoutFeature.selectLayoutState);
  readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  readonly reach = this.store.selectSignal(selectReach);
  /** Shared strata that the person has said yes to. */
  private readonly agreed = new Set<string>();

  readonly selected = computed((): PlacedItem[] => {
    this.registry.contentVersion();
    const strata = new Map(this.openLevel.strata().map((document) => [document.id, document]));
    return this.state().selection.flatMap(({ stratum, kind, id }) => {
      const item = strata.get(stratum)?.item(kind, id);
      // The selection only ever holds kinds of this desk.
      return item ? [{ stratum, kind, item: item as LayoutItem }] : [];
    });
  });
  /** The stratum that new things go into. */
  readonly activeStratum = computed((): Stratum | undefined => {
    const own = (this.openLevel.level()?.strata ?? []).flatMap(({ stratum }) => this.tables().stratum[stratum] ?? []);
    return own.find(({ id }) => id === this.state().active) ?? own.find(({ owner }) => owner !== null) ?? own.at(0);
  });

  /** The grips of the selection when it is one upright thing. */
  readonly frame = computed(() => {
    const [item, ...others] = this.selected();
    if (!item || others.length > 0 || this.isLocked(item.stratum)) return undefined;
    return handleFrame(item, item.kind === 'placement' ? this.tables().piece[(item.item as Placement).piece] : undefined);
  });

  isLocked(stratum: string): boolean {
    return this.state().locked.includes(stratum);
  }

  async move(by: Vector3): Promise<void> {
    const items = this.selected();
    await this.commit(`move ${this.countText(items)}`, items, moveItems(items, by));
  }

  async turn(degrees: number): Promise<void> {
    const items = this.selected();
    const places = items.map(({ item }) => ('position' in item ? [item.position[0], item.position[2]] : [(item.from[0] + item.to[0]) / 2, (item.from[1] + item.to[1]) / 2]));
    const about: [number, number] = [0, 1].map((k) => places.reduce((sum, place) => sum + place[k], 0) / Math.max(1, places.length)) as [number, number];
    await this.commit(`turn ${this.countText(items)}`, items, turnItems(items, degrees, about));
  }

  /** Stretches the selected thing to an extent of its own frame. */
  async stretch(to: PlanExtent): Promise<void> {
    const frame = this.frame();
    if (frame) await this.commit(`resize a ${frame.item.kind}`, [frame.item], stretchItem(frame, to));
  }

  async duplicate(): Promise<void> {
    const items = this.selected();
    const step = this.state().snapMetres || 1;
    const { copies, operations } = duplicateItems(items, [step, 0, step]);
    if (await this.commit(`duplicate ${this.countText(items)}`, items, operations)) {
      this.select(copies.map(({ stratum, kind, item }) => ({ stratum, kind, id: item.id })));
    }
  }

  async delete(): Promise<void> {
    const items = this.selected();
    if (await this.commit(`delete ${this.countText(items)}`, items, deleteItems(items))) this.select([]);
  }

  /** Changes one field, or one number of it. The card may show an older state than what stands. */
  async change(shown: PlacedItem, { field, value, axis }: CardChange): Promise<void> {
    const item = this.asItStands(shown);
    const whole = axis === undefined ? value : withNumber(valueAt(item.item as unknown as JsonRecord, field) as readonly number[], axis, value as number);
    await this.commit(`${field} of a ${item.kind}`, [item], [setField(item.stratum, item.kind, item.item, field, whole)]);
  }

  /** Sets one of an item's three sizes, metres. */
  async resize(shown: PlacedItem, axis: number, metres: number): Promise<void> {
    const item = this.asItStands(shown);
    const piece = item.kind === 'placement' ? this.tables().piece[(item.item as Placement).piece] : undefined;
    const size = sizeOfItem(item, piece);
    if (size) await this.commit(`resize a ${item.kind}`, [item], resizeItem(item, withNumber(size, axis, metres) as unknown as Vector3, piece));
  }

  async add(kind: ItemKind, item: LayoutItem, label: string): Promise<void> {
    const stratum = this.activeStratum();
    if (!stratum) {
      this.refuse('The level has no stratum yet. Make one first.');
      return;
    }
    if (this.isLocked(stratum.id)) {
      this.refuse(`${stratum.name} is locked for you. Unlock it, or choose another stratum.`);
      return;
    }
    if (await this.commit(label, [{ stratum: stratum.id, kind, item }], [create(stratum.id, kind, item)])) this.select([{ stratum: stratum.id, kind, id: item.id }]);
  }

  async addStratum(): Promise<void> {
    const level = this.openLevel.level();
    if (!level) return;
    const count = level.strata.length;
    const stratum: Stratum = { id: newId(), name: count === 0 ? 'Structure' : `Stratum ${count + 1}`, role: count === 0 ? 'structure' : 'dressing', owner: level.id };
    await this.edits.commit('new stratum', [
      create(RECORDS_DOCUMENT, 'stratum', stratum),
      setRecordField('level', level, 'strata', [...level.strata.map((entry) => ({ ...entry })), { stratum: stratum.id, switchedOff: false }]),
    ]);
    this.store.dispatch(layoutActions.stratumActivated({ id: stratum.id }));
  }

  select(items: readonly ItemRef[]): void {
    this.store.dispatch(layoutActions.itemsSelected({ items: items.map(({ stratum, kind, id }) => ({ stratum, kind, id })) }));
  }

  refuse(reason: string): void {
    this.snacks.open(reason, 'Close', { duration: 6000 });
  }

  /** Commits after asking about shared strata. False when the person left it. */
  private async commit(label: string, items: readonly PlacedItem[], operations: readonly Operation[]): Promise<boolean> {
    if (operations.length === 0) return false;
    for (const stratum of new Set(items.map((item) => item.stratum))) {
      const levels = this.reach().get(stratum) ?? [];
      if (levels.length < 2 || this.agreed.has(stratum)) continue;
      const data: ReachDialogData = { stratum: this.tables().stratum[stratum].name, levels: levels.map((id) => this.tables().level[id].name) };
      const answer = await firstValueFrom(this.dialogs.open<ReachDialog, ReachDialogData, boolean>(ReachDialog, { data, width: '440px' }).afterClosed());
      if (answer !== true) return false;
      this.agreed.add(stratum);
    }
    await this.edits.commit(label, operations);
    return true;
  }

  private asItStands(shown: PlacedItem): PlacedItem {
    const item = this.openLevel
      .strata()
      .find(({ id }) => id === shown.stratum)
      ?.item(shown.kind, shown.item.id);
    return item ? { ...shown, item: item as LayoutItem } : shown;
  }

  private countText(items: readonly PlacedItem[]): string {
    return items.length === 1 ? `a ${items[0].kind}` : `${items.length} things`;
  }
}

function withNumber(values: readonly number[], axis: number, number: number): number[] {
  return values.map((value, k) => (k === axis ? number : value));
}
