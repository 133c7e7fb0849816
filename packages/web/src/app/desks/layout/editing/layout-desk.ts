import { Injectable, computed, inject, signal } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store } from '@ngrx/store';
import {
  CoreError,
  PLACED_KINDS,
  anchorOf,
  groupChain,
  valueAt,
  type ItemKind,
  type AnyItem,
  type JsonRecord,
  type Operation,
  type Placement,
  type Stratum,
  type Vector3,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsFeature, selectReach } from '../../../document/records/records-store';
import { copiedItems } from '../../../edits/copied-items';
import { create, setField } from '../../../edits/operations';
import { SharedEdits } from '../../../reach/shared-edits';
import { guardsOf } from '../groups/group-edits';
import { LossDialog, type LossData } from '../../../ui/loss-dialog';
import {
  deleteItems,
  duplicateItems,
  middleOf,
  moveItems,
  refOf,
  resizeItem,
  sizeOfItem,
  turnItems,
  type LayoutItem,
  type PlacedItem,
} from './item-edits';
import type { CardChange } from '../kinds/own-values/item-card';
import { handleFrame, stretchItem, type PlanExtent } from '../plan/frame';
import type { PlateReader } from './plate-reader';
import { copiedText, readCopied } from './copied-text';
import { layoutActions, layoutFeature, type ItemRef, type LayoutSettings } from '../store/layout-store';

/** What can be done on the Layout desk, and to what. */
@Injectable()
export class LayoutDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(SharedEdits);
  private readonly dialogs = inject(Dialogs);
  private readonly snacks = inject(MatSnackBar);
  /** Where things are, while the page shows them. */
  readonly plate = signal<PlateReader | undefined>(undefined);
  private readonly registry = inject(DocumentRegistry);
  readonly openLevel = inject(OpenLevel);
  readonly state = this.store.selectSignal(layoutFeature.selectLayoutState);
  /** What is set for tools. */
  readonly settings = this.store.selectSignal(layoutFeature.selectSettings);
  readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  readonly reach = this.store.selectSignal(selectReach);

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
    if (!item || others.length > 0 || this.isItemLocked(refOf(item))) return undefined;
    return handleFrame(
      item,
      item.kind === 'placement' ? this.tables().piece[(item.item as Placement).piece] : undefined,
    );
  });

  put(settings: Partial<LayoutSettings>): void {
    this.store.dispatch(layoutActions.settingsPut({ settings }));
  }

  isLocked(stratum: string): boolean {
    return this.state().locked.includes(stratum);
  }

  /** Whether an item is locked for this person, with its stratum or with a group that it stands in. */
  isItemLocked({ stratum, kind, id }: ItemRef): boolean {
    if (this.isLocked(stratum)) return true;
    const { lockedGroups } = this.state();
    if (lockedGroups.length === 0) return false;
    const document = this.openLevel.stratum(stratum);
    const item = document?.item(kind, id);
    return (
      document !== undefined &&
      item !== undefined &&
      'group' in item &&
      groupChain(document.tables.group, item.group).some((group) => lockedGroups.includes(group))
    );
  }

  async move(by: Vector3): Promise<void> {
    const items = this.selected();
    await this.commit(`move ${this.countText(items)}`, moveItems(items, by));
  }

  async turn(degrees: number): Promise<void> {
    const items = this.selected();
    await this.commit(`turn ${this.countText(items)}`, turnItems(items, degrees, middleOf(items)));
  }

  /** Stretches the selected thing to an extent of its own frame. */
  async stretch(to: PlanExtent): Promise<void> {
    const frame = this.frame();
    if (frame) await this.commit(`resize a ${frame.item.kind}`, stretchItem(frame, to));
  }

  async duplicate(): Promise<void> {
    const items = this.selected();
    const step = this.state().snapMetres || 1;
    const { copies, operations } = duplicateItems(items, [step, 0, step]);
    if (await this.commit(`duplicate ${this.countText(items)}`, operations)) {
      this.select(copies.map(refOf));
    }
  }

  async delete(): Promise<void> {
    const items = this.selected();
    const guards = this.openLevel.strata().flatMap((document) =>
      guardsOf(
        document,
        items
          .filter(({ stratum }) => stratum === document.id)
          .map(({ item }) => ('group' in item ? item.group : undefined)),
      ),
    );
    if (guards.length > 0) {
      const data: LossData = {
        title: `Delete ${this.countText(items)}?`,
        text: 'This stands in a guarded group:',
        losses: guards,
        command: 'Delete it',
      };
      if (!(await this.dialogs.open(LossDialog, data))) return;
    }
    if (await this.commit(`delete ${this.countText(items)}`, deleteItems(items))) this.select([]);
  }

  /** Changes one field, or one number of it. The card may show an older state than what stands. */
  async change(shown: PlacedItem, { field, value, axis }: CardChange): Promise<void> {
    const item = this.asItStands(shown);
    const whole =
      axis === undefined
        ? value
        : withNumber(valueAt(item.item as unknown as JsonRecord, field) as readonly number[], axis, value as number);
    await this.commit(`${field} of a ${item.kind}`, [setField(item.stratum, item.kind, item.item, field, whole)]);
  }

  /** Sets one of an item's three sizes, metres. */
  async resize(shown: PlacedItem, axis: number, metres: number): Promise<void> {
    const item = this.asItStands(shown);
    const piece = item.kind === 'placement' ? this.tables().piece[(item.item as Placement).piece] : undefined;
    const size = sizeOfItem(item, piece);
    if (size)
      await this.commit(
        `resize a ${item.kind}`,
        resizeItem(item, withNumber(size, axis, metres) as unknown as Vector3, piece),
      );
  }

  async add(kind: ItemKind, item: LayoutItem, label: string): Promise<void> {
    const stratum = this.openStratum();
    if (!stratum) return;
    const { activeGroup } = this.state();
    const placed = activeGroup === '' || kind === 'link' ? item : { ...item, group: activeGroup };
    if (await this.commit(label, [create(stratum.id, kind, placed)]))
      this.select([{ stratum: stratum.id, kind, id: item.id }]);
  }

  /** What is selected, as text for the clipboard; undefined when nothing is. */
  copy(): string | undefined {
    const items = this.selected();
    return items.length === 0
      ? undefined
      : copiedText(
          items,
          (piece) =>
            this.openLevel.pieces()[piece]?.name ?? (this.tables().stratum[piece] as Stratum | undefined)?.name,
        );
  }

  /** Puts copied things into the stratum that is stood on, at the places where they were. */
  async paste(text: string): Promise<void> {
    const stratum = this.openStratum();
    if (!stratum) return;
    await this.attempt(async () => {
      const { content, count, missing, leftOut } = readCopied(
        text,
        (piece) => this.openLevel.pieces()[piece] !== undefined || Object.hasOwn(this.tables().stratum, piece),
      );
      if (leftOut > 0)
        this.notify(
          `${leftOut} thing${leftOut === 1 ? ' was' : 's were'} left out: this collection has no ${missing.slice(0, 5).join(', ')}${missing.length > 5 ? ` and ${missing.length - 5} more` : ''}.`,
        );
      const { copies, operations } = copiedItems(stratum.id, content);
      if (await this.commit(`paste ${count} thing${count === 1 ? '' : 's'}`, operations))
        this.select(copies.map(({ kind, item }) => ({ stratum: stratum.id, kind, id: item.id })));
    });
  }

  /** The stratum that new things go into; says why when there is none that takes them. */
  private openStratum(): Stratum | undefined {
    const stratum = this.activeStratum();
    if (!stratum) this.notify('The level has no stratum yet. Make one first.');
    else if (this.isLocked(stratum.id))
      this.notify(`${stratum.name} is locked for you. Unlock it, or choose another stratum.`);
    else return stratum;
    return undefined;
  }

  /** Runs something that core may refuse, and says why. */
  async attempt(run: () => Promise<unknown>): Promise<void> {
    try {
      await run();
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.notify(error.message);
    }
  }

  select(items: readonly ItemRef[]): void {
    this.store.dispatch(
      layoutActions.itemsSelected({ items: items.map(({ stratum, kind, id }) => ({ stratum, kind, id })) }),
    );
  }

  /** Selects one thing, or adds it to the selection, or takes it from it. */
  pick(item: ItemRef | undefined, add: boolean): void {
    const { selection } = this.state();
    if (!item) this.select(add ? selection : []);
    else if (!add) this.select([item]);
    else
      this.select(
        selection.some(({ id }) => id === item.id)
          ? selection.filter(({ id }) => id !== item.id)
          : [...selection, item],
      );
  }

  /** The point by which a thing is placed, metres. */
  pivotOf({ stratum, kind, id }: ItemRef): Vector3 | undefined {
    const item = this.openLevel.stratum(stratum)?.item(kind, id);
    return item && (PLACED_KINDS as readonly string[]).includes(kind) ? anchorOf({ kind, item } as AnyItem) : undefined;
  }

  notify(reason: string): void {
    this.snacks.open(reason, 'Close', { duration: 6000 });
  }

  /** Commits after asking where changes of shared strata belong. False when the person left it, or when it cannot be done. */
  async commit(label: string, operations: readonly Operation[]): Promise<boolean> {
    let isDone = false;
    await this.attempt(async () => {
      isDone = await this.edits.commit(label, operations);
    });
    return isDone;
  }

  private asItStands(shown: PlacedItem): PlacedItem {
    const item = this.openLevel.stratum(shown.stratum)?.item(shown.kind, shown.item.id);
    return item ? { ...shown, item: item as LayoutItem } : shown;
  }

  countText(items: readonly PlacedItem[]): string {
    return items.length === 1 ? `a ${items[0].kind}` : `${items.length} things`;
  }
}

function withNumber(values: readonly number[], axis: number, number: number): number[] {
  return values.map((value, k) => (k === axis ? number : value));
}
