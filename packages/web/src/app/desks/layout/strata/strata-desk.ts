import { Injectable, computed, inject } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Sheets } from '../../../level-desk/sheets';
import { Store } from '@ngrx/store';
import {
  CoreError,
  STRATUM_ROLES,
  anyItem,
  counted,
  heldAt,
  patchStates,
  keepPatch,
  pushPatch,
  revertPatch,
  specOf,
  storedRecord,
  type ItemKind,
  type Level,
  type Operation,
  type PatchState,
} from '@stravel/core';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { setRecordField } from '../../../edits/operations';
import { SharedEdits } from '../../../reach/shared-edits';
import { Ask, nameFault } from '../../../ui/ask';
import { ItemNames } from '../editing/item-names';
import { oneOf } from '../editing/placed-item';
import { LayoutDesk } from '../editing/layout-desk';
import { layoutActions } from '../store/layout-store';
import { AddSharedDialog, type AddSharedData } from './add-shared-dialog';
import { LossDialog, type LossData } from '../../../ui/loss-dialog';
import { PatchesSheet, type PatchesData } from './patches-sheet';
import { addNext, addShared, moveInStack, partWays, switchStratum, takeOut } from './strata-edits';

/** What can be done with the strata of the open level as wholes. */
@Injectable()
export class StrataDesk {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly dialogs = inject(Dialogs);
  private readonly sheets = inject(Sheets);
  private readonly ask = inject(Ask);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly shared = inject(SharedEdits);
  private readonly desk = inject(LayoutDesk);
  private readonly names = inject(ItemNames);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);

  async addOwned(): Promise<void> {
    const level = this.openLevel.level();
    if (!level) return;
    const { id, operations } = addNext(level);
    await this.edits.commit('new stratum', operations);
    this.store.dispatch(layoutActions.stratumActivated({ id }));
  }

  async addShared(): Promise<void> {
    const level = this.openLevel.level();
    if (!level) return;
    const offered = Object.values(this.tables().stratum)
      .filter(({ id, kit }) => !kit && !level.strata.some(({ stratum }) => stratum === id))
      .map((stratum) => ({ stratum, levels: this.levelsOf(stratum.id).map(({ name }) => name) }))
      .filter(({ levels }) => levels.length > 0)
      .sort(
        (a, b) =>
          Number(b.stratum.owner === null) - Number(a.stratum.owner === null) ||
          (a.stratum.name < b.stratum.name ? -1 : 1),
      );
    const data: AddSharedData = { level: level.name, offered };
    const chosen = await this.dialogs.open(AddSharedDialog, data);
    const now = this.openLevel.level();
    if (!chosen || !now) return;
    const strata = chosen.flatMap((id) => this.tables().stratum[id] ?? []);
    await this.edits.commit(
      strata.length === 1 ? `share ${strata[0].name}` : `share ${strata.length} strata`,
      addShared(now, strata),
    );
  }

  async rename(id: string): Promise<void> {
    const stratum = this.tables().stratum[id];
    const levels = this.levelsOf(id).length;
    const result = await this.ask.for({
      title: 'Stratum',
      text: levels > 1 ? `This is its name in all ${levels} levels that share it.` : undefined,
      questions: [
        { key: 'name', label: 'Name', kind: 'text', value: stratum.name },
        {
          key: 'role',
          label: 'Role',
          kind: 'choice',
          value: stratum.role,
          choices: STRATUM_ROLES.map((role) => ({ value: role, name: role })),
        },
      ],
      command: 'Save',
      fault: ({ name }) => nameFault(name),
    });
    const now = heldAt(this.tables().stratum, id);
    if (!result || !now) return;
    const wanted = { name: String(result['name']).trim(), role: String(result['role']) };
    const operations = (['name', 'role'] as const)
      .filter((field) => now[field] !== wanted[field])
      .map((field) => setRecordField('stratum', now, field, wanted[field]));
    await this.edits.commit(`stratum ${wanted.name}`, operations);
  }

  /** @param by places upwards */
  async move(id: string, by: number): Promise<void> {
    await this.onLevel(`move ${this.nameOf(id)} ${by > 0 ? 'up' : 'down'}`, (level) =>
      moveInStack(level, id, level.strata.findIndex(({ stratum }) => stratum === id) + by),
    );
  }

  /** @param to its place counted from the top, from 0 */
  async moveTo(id: string, to: number): Promise<void> {
    await this.onLevel(`move ${this.nameOf(id)}`, (level) => moveInStack(level, id, level.strata.length - 1 - to));
  }

  async switchOff(id: string, off: boolean): Promise<void> {
    await this.onLevel(`switch ${this.nameOf(id)} ${off ? 'off' : 'on'}`, (level) => switchStratum(level, id, off));
  }

  /** Takes a stratum out of the open level, or out of every level that has it, after saying who loses what. */
  async takeOut(id: string, ofAll: boolean): Promise<void> {
    const level = this.openLevel.level();
    const stratum = heldAt(this.tables().stratum, id);
    if (!level || !stratum) return;
    const levels = this.levelsOf(id);
    const from = ofAll ? levels : [level];
    const others = levels.filter((one) => !from.includes(one) && one.id !== level.id);
    const content = this.openLevel.shared().find((one) => one.id === id);
    const data: LossData = {
      title: others.length === 0 ? `Delete ${stratum.name}?` : `Remove ${stratum.name} from ${level.name}?`,
      text:
        others.length === 0
          ? `${from.length === 1 ? level.name : `${from.length} levels`} will be without it, and the stratum is deleted. You can undo this.`
          : `${counted(others.length, 'other level keeps', 'other levels keep')} it.`,
      losses: from.map((one) => `${one.name}: ${this.lossOf(one, id)}`),
      command:
        others.length === 0 ? `Delete in ${from.length === 1 ? level.name : `all ${from.length} levels`}` : 'Remove',
    };
    if (!(await this.dialogs.open(LossDialog, data))) return;
    await this.edits.commit(
      others.length === 0 ? `delete ${stratum.name}` : `remove ${stratum.name} from ${level.name}`,
      takeOut(stratum, from, others, content?.content()),
    );
  }

  async partWays(id: string): Promise<void> {
    const level = this.openLevel.level();
    const stratum = heldAt(this.tables().stratum, id);
    const document = this.openLevel.shared().find((one) => one.id === id);
    if (!level || !stratum || !document) return;
    const { id: own, operations } = partWays(level, stratum, document.content());
    await this.edits.commit(`${level.name} gets a separate copy of ${stratum.name}`, operations);
    this.store.dispatch(layoutActions.stratumActivated({ id: own }));
  }

  openPatches(id: string): void {
    const level = this.openLevel.level();
    if (!level) return;
    const shared = (): ReturnType<SharedEdits['sharedStratum']> => this.shared.sharedStratum(id);
    const data: PatchesData = {
      stratum: this.nameOf(id),
      level: level.name,
      reach: this.levelsOf(id).length,
      states: computed(() => {
        this.registry.contentVersion();
        const stratum = shared();
        return stratum ? patchStates(stratum.patches(), level.id, (kind, item) => stratum.item(kind, item)) : [];
      }),
      nameOf: (state) => this.nameOfPatched(state),
      revert: (states) =>
        void this.edits.commit(
          states.length === 1
            ? `use the shared ${this.nameOfPatched(states[0])}`
            : `use the shared ones: ${states.length} local changes`,
          states.flatMap(({ patch }) => revertPatch(id, patch)),
        ),
      keep: ({ patch }) => {
        const stratum = shared();
        if (stratum) void this.edits.commit('keep a local change', keepPatch(stratum, patch));
      },
      push: (state) => void this.push(id, state),
      goTo: ({ patch }) => this.desk.select([{ stratum: id, kind: patch.kind, id: patch.target }]),
    };
    void this.sheets.open(PatchesSheet, data);
  }

  private async push(id: string, { patch }: PatchState): Promise<void> {
    const stratum = this.shared.sharedStratum(id);
    if (!stratum) return;
    try {
      await this.edits.commit(
        `change ${oneOf(patch.kind)} in all ${this.levelsOf(id).length} levels`,
        pushPatch(stratum, patch),
      );
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.desk.notify(error.message);
    }
  }

  private nameOfPatched({ patch, shared }: PatchState): string {
    // Of what is gone only the changed fields are known.
    return shared || patch.change === 'added'
      ? this.names.nameOf(
          anyItem<ItemKind>(patch.kind, storedRecord<ItemKind>(patch.kind, { ...shared, ...patch.fields })),
        )
      : specOf(patch.kind).words.one;
  }

  private async onLevel(label: string, change: (level: Level) => Operation[]): Promise<void> {
    const level = this.openLevel.level();
    if (level) await this.edits.commit(label, change(level));
  }

  private levelsOf(id: string): Level[] {
    return this.shared.levelsOf(id).flatMap((level) => this.tables().level[level] ?? []);
  }

  private nameOf(id: string): string {
    return heldAt(this.tables().stratum, id)?.name ?? 'a stratum';
  }

  private lossOf(level: Level, stratum: string): string {
    const document = this.openLevel.shared().find(({ id }) => id === stratum);
    const patches = [...(document?.tables.patch.values() ?? [])].filter((patch) => patch.level === level.id).length;
    const things = document ? counted(document.size, 'object') : 'everything in it';
    return patches === 0 ? things : `${things}, and ${counted(patches, 'local change')}`;
  }
}
