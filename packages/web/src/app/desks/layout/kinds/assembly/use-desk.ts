import { Injectable, computed, inject } from '@angular/core';
import { Dialogs } from '../../../../ui/dialogs';
import {
  anyItem,
  assemblyOfUse,
  counted,
  kindsWith,
  movedFields,
  operationsForOne,
  operationsOnUse,
  patchStates,
  patchesOfUse,
  pushPatch,
  revertPatch,
  specOf,
  storedRecord,
  type Item,
  type ItemKind,
  type Operation,
  type PatchState,
  type Vector3,
} from '@stravel/core';
import { DocumentRegistry } from '../../../../document/document-registry';
import { OpenLevel } from '../../../../document/level/open-level';
import { remove } from '../../../../edits/operations';
import { SharedEdits } from '../../../../reach/shared-edits';
import { Ask } from '../../../../ui/ask';
import { vectorOf, vectorQuestions } from '../../parts/vector-questions';
import { setFields } from '../../editing/item-edits';
import { ItemNames } from '../../editing/item-names';
import { changedItem, placedItem } from '../../editing/placed-item';
import { LayoutDesk } from '../../editing/layout-desk';
import { LossDialog, type LossData } from '../../../../ui/loss-dialog';
import { AssembliesDesk } from './assemblies-desk';

/** Kinds of which each is a thing. */
const THINGS = kindsWith('thing');

/** One thing within the chosen use. */
export interface WithinRow {
  readonly kind: ItemKind;
  readonly id: string;
  readonly name: string;
  /** What this use has otherwise; '' when nothing. */
  readonly otherwise: string;
  readonly isHidden: boolean;
  /** Whether it can be moved. */
  readonly hasPlace: boolean;
  readonly state: PatchState | undefined;
}

/** The one use of an assembly that is chosen: where it stands, and what it has otherwise. */
@Injectable()
export class UseDesk {
  private readonly ask = inject(Ask);
  private readonly dialogs = inject(Dialogs);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly shared = inject(SharedEdits);
  private readonly desk = inject(LayoutDesk);
  private readonly assemblies = inject(AssembliesDesk);
  private readonly names = inject(ItemNames);

  /** The one use that is chosen. */
  readonly selected = computed(() => {
    const one = this.desk.oneOf('assembly');
    return one && { stratum: one.stratum, use: one.item };
  });
  /** What stands within the chosen use, and what it has otherwise. */
  readonly within = computed((): WithinRow[] => {
    this.registry.contentVersion();
    const chosen = this.selected();
    const document = chosen && this.openLevel.assemblies().get(chosen.use.assembly);
    if (!chosen || !document) return [];
    const states = new Map(
      patchStates(patchesOfUse(chosen.use), chosen.use.id, (kind, id) => document.item(kind, id)).map((state) => [
        state.patch.target,
        state,
      ]),
    );
    const rows = THINGS.flatMap((kind) =>
      [...document.itemsOf(kind)].map((item): WithinRow => this.rowOf(kind, item, states.get(item.id))),
    );
    const idle = [...states.values()]
      .filter(({ shared }) => !shared)
      .map((state) =>
        this.rowOf(
          state.patch.kind,
          storedRecord<ItemKind>(state.patch.kind, { id: state.patch.target, ...state.patch.fields }),
          state,
        ),
      );
    return [...rows, ...idle];
  });

  put(field: 'position' | 'turn', value: Vector3 | number): void {
    const one = this.desk.oneOf('assembly');
    if (one) void this.desk.set(one, field, value);
  }

  /** Leaves a thing out in this use alone. */
  async hide({ kind, id }: WithinRow): Promise<void> {
    await this.onUse('hide an object of an assembly here', (item, assembly) => {
      const seen = item(kind, id);
      return seen ? [remove(assembly, kind, seen)] : [];
    });
  }

  /** Moves a thing in this use alone, in the assembly's own directions. */
  async move({ kind, id, name }: WithinRow): Promise<void> {
    const answers = await this.ask.for({
      title: `Move ${name} here only`,
      text: 'Along the axes of the assembly; sums work too.',
      questions: vectorQuestions('By'),
      command: 'Move',
    });
    if (!answers) return;
    await this.onUse('move an object of an assembly here', (item, assembly) => {
      const seen = item(kind, id);
      const one = seen && placedItem<ItemKind>(assembly, kind, seen);
      return one ? setFields(one, movedFields(one, vectorOf(answers))) : [];
    });
  }

  async revert({ patch }: PatchState): Promise<void> {
    const chosen = this.selected();
    if (chosen)
      await this.desk.commit(
        'use the shared one',
        operationsOnUse(chosen.stratum, chosen.use, revertPatch(chosen.use.assembly, patch)),
      );
  }

  /** Gives what this use has otherwise to all, after saying whom it reaches. */
  async giveToAll({ patch }: PatchState): Promise<void> {
    const chosen = this.selected();
    const document = chosen && this.openLevel.assemblies().get(chosen.use.assembly);
    if (!document) return;
    const levels = this.assemblies.levelsOf(chosen.use.assembly);
    const data: LossData = {
      title: `Change ${this.assemblies.nameOf(chosen.use.assembly)} everywhere?`,
      text: `It changes wherever the assembly is used, in ${counted(levels.length, 'level')}:`,
      losses: levels,
      command: 'Change everywhere',
    };
    if (!(await this.dialogs.open(LossDialog, data))) return;
    await this.desk.attempt(async () => {
      const pushed = pushPatch(
        assemblyOfUse(chosen.use, (kind, id) => document.item(kind, id)),
        patch,
      );
      this.shared.choose(chosen.use.assembly, 'all');
      await this.desk.commit(
        `change ${this.assemblies.nameOf(chosen.use.assembly)} everywhere`,
        operationsOnUse(chosen.stratum, chosen.use, pushed),
      );
    });
  }

  private async onUse(
    label: string,
    change: (item: (kind: ItemKind, id: string) => Item | undefined, assembly: string) => readonly Operation[],
  ): Promise<void> {
    const chosen = this.selected();
    const document = chosen && this.openLevel.assemblies().get(chosen.use.assembly);
    if (!document) return;
    const { stratum, use } = chosen;
    const assembly = assemblyOfUse(use, (kind, id) => document.item(kind, id));
    const seen = patchStates(patchesOfUse(use), use.id, (kind, id) => document.item(kind, id));
    const item = (kind: ItemKind, id: string): Item | undefined => {
      const own = seen.find(({ patch }) => patch.target === id)?.patch;
      const shared = document.item(kind, id);
      return shared && own ? changedItem(kind, shared, own.fields) : shared;
    };
    await this.desk.attempt(async () => {
      await this.desk.commit(
        label,
        operationsOnUse(stratum, use, operationsForOne(assembly, change(item, use.assembly))),
      );
    });
  }

  private rowOf(kind: ItemKind, item: Item, state: PatchState | undefined): WithinRow {
    return {
      kind,
      id: item.id,
      name: this.names.nameOf(anyItem<ItemKind>(kind, item)),
      otherwise: state ? wordsOf(state) : '',
      isHidden: state?.command === 'hidden',
      hasPlace: specOf(kind).place !== null,
      state,
    };
  }
}

/** What a use has otherwise, with what all others have. */
function wordsOf({ command, patch, isIdle }: PatchState): string {
  if (isIdle) return 'of a deleted object';
  if (patch.change !== 'changed') return command;
  const text = (value: unknown): string =>
    JSON.stringify(value)
      .replace(/["[\]]/g, '')
      .slice(0, 40);
  return `${command}: ${Object.keys(patch.fields)
    .map((field) => `${field} ${text(patch.was[field])} → ${text(patch.fields[field])}`)
    .join('; ')}`;
}
