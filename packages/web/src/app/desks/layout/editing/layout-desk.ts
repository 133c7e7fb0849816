import { Injectable, computed, inject, signal } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Notices } from '../../../ui/notices';
import { Store } from '@ngrx/store';
import {
  heldAt,
  CoreError,
  anchorOf,
  counted,
  groupChain,
  groupOf,
  plainRecord,
  valueAt,
  type ChangedFields,
  type Item,
  type ItemKind,
  type ItemOfKind,
  type Json,
  type Operation,
  type Stratum,
  type Vector3,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsFeature, selectReach } from '../../../document/records/records-store';
import { copiedItems } from '../../../edits/copied-items';
import { create } from '../../../edits/operations';
import { SharedEdits } from '../../../reach/shared-edits';
import { LossDialog, type LossData } from '../../../ui/loss-dialog';
import { addNext } from '../strata/strata-edits';
import { layoutActions, layoutFeature, type ItemRef, type LayoutSettings } from '../store/layout-store';
import { copiedText, readCopied } from './copied-text';
import { guardsOf } from './guards';
import { deleteItems, duplicateItems, middleOf, moveItems, setFields, turnItems } from './item-edits';
import { ItemNames } from './item-names';
import { isGrouped, isOfKind, ofKind, oneOf, placedIn, placedItem, refOf, type PlacedItem } from './placed-item';
import type { PlateReader } from './plate-reader';

/** What fields are called where their name in files is another. */
const FIELD_WORDS: Readonly<Record<string, string>> = { turn: 'rotation', sight: 'blocks view', entry: 'kind' };

/** What can be done on the Layout desk, and to what. */
@Injectable()
export class LayoutDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(SharedEdits);
  private readonly dialogs = inject(Dialogs);
  private readonly notices = inject(Notices);
  /** Where things are, while the page shows them. */
  readonly plate = signal<PlateReader | undefined>(undefined);
  private readonly registry = inject(DocumentRegistry);
  readonly openLevel = inject(OpenLevel);
  readonly state = this.store.selectSignal(layoutFeature.selectLayoutState);
  /** What is set for tools. */
  readonly settings = this.store.selectSignal(layoutFeature.selectSettings);
  readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  readonly reach = this.store.selectSignal(selectReach);
  private readonly names = inject(ItemNames);

  readonly selected = computed((): PlacedItem[] => {
    this.registry.contentVersion();
    const strata = new Map(this.openLevel.strata().map((document) => [document.id, document]));
    return this.state().selection.flatMap((ref) => placedIn(strata.get(ref.stratum), ref) ?? []);
  });
  /** The one thing that is selected; undefined when none is, or several are. */
  readonly one = computed(() => (this.selected().length === 1 ? this.selected()[0] : undefined));
  /** The stratum that new things go into. */
  readonly activeStratum = computed((): Stratum | undefined => {
    const own = (this.openLevel.level()?.strata ?? []).flatMap(({ stratum }) => this.tables().stratum[stratum] ?? []);
    return own.find(({ id }) => id === this.state().active) ?? own.find(({ owner }) => owner !== null) ?? own.at(0);
  });

  put(settings: Partial<LayoutSettings>): void {
    this.store.dispatch(layoutActions.settingsPut({ settings }));
  }

  isLocked(stratum: string): boolean {
    return this.state().locked.includes(stratum);
  }

  /** Whether an item is locked for this person, with its stratum or with a group that it stands in. */
  isItemLocked(ref: ItemRef): boolean {
    if (this.isLocked(ref.stratum)) return true;
    const { lockedGroups } = this.state();
    if (lockedGroups.length === 0) return false;
    const document = this.openLevel.stratum(ref.stratum);
    const one = placedIn(document, ref);
    return (
      document !== undefined &&
      one !== undefined &&
      groupChain(document.tables.group, groupOf<ItemKind>(one)).some((group) => lockedGroups.includes(group))
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
        items.filter(({ stratum }) => stratum === document.id).map((one) => groupOf<ItemKind>(one)),
      ),
    );
    if (guards.length > 0) {
      const data: LossData = {
        title: `Delete ${this.countText(items)}?`,
        text: 'This is in a guarded group:',
        losses: guards,
        command: 'Delete',
      };
      if (!(await this.dialogs.open(LossDialog, data))) return;
    }
    if (await this.commit(`delete ${this.countText(items)}`, deleteItems(items))) this.select([]);
  }

  /** Changes one field of a thing; what shows it may show an older state than what stands. */
  async set(shown: PlacedItem, field: string, value: Json): Promise<void> {
    const one = this.asItStands(shown);
    await this.commit(
      `${heldAt(FIELD_WORDS, field) ?? field.replace(/^values\./, '')} of ${oneOf(one.kind)}`,
      setFields(one, { [field]: value }),
    );
  }

  /** Changes one number of a field that has several. */
  /** Changes a field of many at once; what has it already stays as it is. */
  async setAll(items: readonly PlacedItem[], field: string, value: string): Promise<void> {
    const changed = items
      .filter((one) => !this.isItemLocked(refOf(one)))
      .flatMap((one) => (plainRecord<Item>(one.item)[field] === value ? [] : setFields(one, { [field]: value })));
    if (changed.length === 0) return;
    await this.commit(`${heldAt(FIELD_WORDS, field) ?? field} of ${this.countText(items)}`, changed);
  }

  async setNumber(shown: PlacedItem, field: string, axis: number, value: number): Promise<void> {
    const one = this.asItStands(shown);
    const before = valueAt(plainRecord<Item>(one.item), field);
    if (Array.isArray(before))
      await this.set(
        one,
        field,
        before.map((old: Json, k) => (k === axis ? value : old)),
      );
  }

  /** Gives a thing another size by some of its fields. */
  async resize(shown: PlacedItem, fields: ChangedFields): Promise<void> {
    const one = this.asItStands(shown);
    await this.commit(`resize ${oneOf(one.kind)}`, setFields(one, fields));
  }

  /** The things of a kind that are selected. */
  selectedOf<K extends ItemKind>(kind: K): PlacedItem<K>[] {
    return ofKind(this.selected(), kind);
  }

  /** The one thing that is selected, when it is of a kind. */
  oneOf<K extends ItemKind>(kind: K): PlacedItem<K> | undefined {
    const one = this.one();
    return one && isOfKind(one, kind) ? one : undefined;
  }

  /** A thing as it stands now; as it was shown when it is gone. */
  asItStands<K extends ItemKind>(shown: PlacedItem<K>): PlacedItem<K> {
    const item = this.openLevel.stratum(shown.stratum)?.item<K>(shown.kind, shown.item.id);
    return item ? placedItem<K>(shown.stratum, shown.kind, item) : shown;
  }

  async add<K extends ItemKind>(kind: K, item: ItemOfKind[K], label: string): Promise<void> {
    const place = this.placeForNew();
    if (!place) return;
    const { activeGroup } = this.state();
    const placed = activeGroup !== '' && isGrouped(kind) ? { ...item, group: activeGroup } : item;
    if (await this.commit(label, [...place.first, create(place.stratum, kind, placed)]))
      this.select([{ stratum: place.stratum, kind, id: item.id }]);
  }

  /** What is selected, as text for the clipboard; undefined when nothing is. */
  copy(): string | undefined {
    const items = this.selected();
    return items.length === 0 ? undefined : copiedText(items, (source) => this.names.nameOfSource(source));
  }

  /** Puts copied things into the stratum that is stood on, at the places where they were. */
  async paste(text: string): Promise<void> {
    const place = this.placeForNew();
    if (!place) return;
    await this.attempt(async () => {
      const { content, count, missing, leftOut } = readCopied(
        text,
        (source) => this.names.nameOfSource(source) !== undefined,
      );
      if (leftOut > 0)
        this.notify(
          `${counted(leftOut, 'object was', 'objects were')} left out: this collection has no ${missing.slice(0, 5).join(', ')}${missing.length > 5 ? ` and ${missing.length - 5} more` : ''}.`,
        );
      const { copies, operations } = copiedItems(place.stratum, content);
      if (await this.commit(`paste ${counted(count, 'object')}`, [...place.first, ...operations]))
        this.select(copies.map(({ kind, item }) => ({ stratum: place.stratum, kind, id: item.id })));
    });
  }

  /** The stratum that new things go into, with what makes it in a level that has none; says why when there is none that takes them. */
  private placeForNew(): { readonly stratum: string; readonly first: readonly Operation[] } | undefined {
    const stratum = this.activeStratum();
    const level = this.openLevel.level();
    if (!stratum) {
      if (!level || level.strata.length > 0) {
        this.notify('There is no level open that new objects can go into.');
        return undefined;
      }
      const { id, operations } = addNext(level);
      return { stratum: id, first: operations };
    }
    if (this.isLocked(stratum.id))
      this.notify(`${stratum.name} is locked for you. Unlock it, or choose another stratum.`);
    else return { stratum: stratum.id, first: [] };
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
  pivotOf(ref: ItemRef): Vector3 | undefined {
    const one = placedIn(this.openLevel.stratum(ref.stratum), ref);
    return one && anchorOf<ItemKind>(one);
  }

  notify(reason: string): void {
    this.notices.show(reason, 6000);
  }

  /** Commits after asking where changes of shared strata belong. False when the person left it, or when it cannot be done. */
  async commit(label: string, operations: readonly Operation[]): Promise<boolean> {
    let isDone = false;
    await this.attempt(async () => {
      isDone = await this.edits.commit(label, operations);
    });
    return isDone;
  }

  countText(items: readonly PlacedItem[]): string {
    return items.length === 1 ? oneOf(items[0].kind) : `${items.length} objects`;
  }
}
