import { Injectable, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import {
  ITEM_KINDS,
  RECORDS_DOCUMENT,
  assemblyOfUse,
  movedFields,
  operationsForOne,
  operationsOnUse,
  patchStates,
  patchesOfUse,
  pushPatch,
  revertPatch,
  type AssemblyUse,
  type Item,
  type ItemKind,
  type Operation,
  type PatchState,
  type PlacedItemOf,
  type Stratum,
  type StratumContent,
  type Vector3,
} from '@stravel/core';
import { firstValueFrom } from 'rxjs';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { remove, setField, setRecordField } from '../../../edits/operations';
import { SharedEdits } from '../../../reach/shared-edits';
import { Ask, nameFault } from '../../../ui/ask';
import { setFields, type PlacedItem } from '../item-edits';
import { LayoutDesk } from '../layout-desk';
import { vectorOf, vectorQuestions } from '../arrange/vector-questions';
import type { ASSEMBLY_DEEDS } from '../selecting/selection-bar';
import { LossDialog, type LossData } from '../strata/loss-dialog';
import { assemblyOf, footOf, ownCopy, partedFrom, replaced } from './assembly-edits';

/** One thing within the chosen use. */
export interface WithinRow {
  readonly kind: ItemKind;
  readonly id: string;
  readonly name: string;
  /** What this use has otherwise; '' when nothing. */
  readonly otherwise: string;
  readonly isHidden: boolean;
  readonly state: PatchState | undefined;
}

/** Making, placing and changing assemblies. */
@Injectable({ providedIn: 'root' })
export class AssembliesDesk {
  private readonly ask = inject(Ask);
  private readonly dialogs = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly shared = inject(SharedEdits);
  private readonly desk = inject(LayoutDesk);

  /** All assemblies of the kits, by name. */
  readonly all = computed(() =>
    Object.values(this.desk.tables().stratum)
      .filter(({ kit }) => Boolean(kit))
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  );
  /** The one use that is chosen. */
  readonly selected = computed(() => {
    const [one, ...others] = this.desk.selected();
    return one?.kind === 'assembly' && others.length === 0 ? { stratum: one.stratum, use: one.item as AssemblyUse } : undefined;
  });
  /** What stands within the chosen use, and what it has otherwise. */
  readonly within = computed((): WithinRow[] => {
    this.registry.contentVersion();
    const chosen = this.selected();
    const document = chosen && this.openLevel.assemblies().get(chosen.use.assembly);
    if (!chosen || !document) return [];
    const states = new Map(patchStates(patchesOfUse(chosen.use), chosen.use.id, (kind, id) => document.item(kind, id)).map((state) => [state.patch.target, state]));
    const rows = ITEM_KINDS.flatMap((kind) =>
      kind === 'patch' || kind === 'group' ? [] : [...document.itemsOf(kind)].map((item): WithinRow => this.rowOf(kind, item, states.get(item.id))),
    );
    const idle = [...states.values()]
      .filter(({ shared }) => !shared)
      .map((state) => this.rowOf(state.patch.kind, { id: state.patch.target, ...state.patch.fields } as unknown as Item, state));
    return [...rows, ...idle];
  });

  nameOf(assembly: string): string {
    return (this.desk.tables().stratum[assembly] as Stratum | undefined)?.name ?? 'an assembly that is gone';
  }

  /** Names of the levels that a change of an assembly reaches. */
  levelsOf(assembly: string): string[] {
    return this.shared.levelsOf(assembly).flatMap((id) => this.desk.tables().level[id]?.name ?? []);
  }

  do(deed: (typeof ASSEMBLY_DEEDS)[number]): Promise<void> {
    const deeds: Record<typeof deed, () => Promise<void>> = {
      'make assembly': () => this.make(),
      'replace assembly': () => this.replace(),
      'part ways': () => this.partWays(),
      'own copy': () => this.ownCopy(),
    };
    return deeds[deed]();
  }

  /** Shows an assembly, or a level, on this desk. */
  open(id: string): void {
    void this.router.navigate(['/layout', id]);
  }

  /** Makes an assembly of what is selected. */
  private async make(): Promise<void> {
    const items = this.desk.selected();
    const into = this.desk.activeStratum();
    const kits = Object.values(this.desk.tables().kit);
    if (!into || items.length === 0) return;
    if (kits.length === 0) {
      this.desk.refuse('An assembly belongs to a kit, and the collection has none yet. Bring pieces in on the Detail desk first.');
      return;
    }
    const boxes = items.flatMap(({ stratum, kind, item }) => this.desk.plate()?.item(stratum, kind, item.id)?.bounds ?? []);
    const answers = await this.ask.for({
      title: `An assembly of ${this.desk.countText(items)}`,
      says: 'It is kept in the kit and can be placed many times. What it is made of becomes its first use.',
      questions: [
        { key: 'name', label: 'Name', kind: 'text', value: '' },
        { key: 'kit', label: 'Kit', kind: 'choice', value: kits[0].id, choices: kits.map(({ id, name }) => ({ value: id, name })) },
        ...vectorQuestions('Its zero at', boxes.length > 0 ? footOf(boxes) : [0, 0, 0]),
      ],
      deed: 'Make it',
      fault: ({ name }) => nameFault(name),
    });
    if (!answers) return;
    await this.desk.attempt(async () => {
      const { use, operations } = assemblyOf(items, { name: String(answers['name']).trim(), kit: String(answers['kit']), pivot: vectorOf(answers), into: into.id });
      if (await this.desk.commit(`make ${String(answers['name']).trim()}`, operations)) this.desk.select([{ stratum: into.id, kind: 'assembly', id: use.id }]);
    });
  }

  /** Lets another assembly stand wherever the chosen ones do. */
  private async replace(): Promise<void> {
    const items = this.uses();
    if (items.length === 0) return;
    const answers = await this.ask.for({
      title: 'Replace by',
      says: 'What the chosen uses have otherwise goes.',
      questions: [{ key: 'by', label: 'Assembly', kind: 'choice', value: items[0].use.assembly, choices: this.all().map(({ id, name }) => ({ value: id, name })) }],
      deed: 'Replace',
    });
    if (!answers) return;
    const by = String(answers['by']);
    await this.desk.commit(
      `replace by ${this.nameOf(by)}`,
      items.filter(({ use }) => use.assembly !== by).flatMap(({ stratum, use }) => replaced(stratum, use, by)),
    );
  }

  /** Makes the chosen uses things of their own. */
  private async partWays(): Promise<void> {
    const parted = this.uses().flatMap(({ stratum, use }) => {
      const content = this.contentOf(use.assembly);
      return content ? [{ stratum, ...partedFrom(stratum, use, content) }] : [];
    });
    const isDone = await this.desk.commit(
      parted.length === 1 ? 'part ways with an assembly' : `part ways with ${parted.length} assemblies`,
      parted.flatMap(({ operations }) => operations),
    );
    if (isDone) this.desk.select(parted.flatMap(({ stratum, copies }) => copies.filter(({ kind }) => kind !== 'group').map(({ kind, item }) => ({ stratum, kind, id: item.id }))));
  }

  /** Gives the one chosen use an assembly of its own. */
  private async ownCopy(): Promise<void> {
    const chosen = this.selected();
    const record = chosen && (this.desk.tables().stratum[chosen.use.assembly] as Stratum | undefined);
    const content = chosen && this.contentOf(chosen.use.assembly);
    if (!record || !content) return;
    const answers = await this.ask.for({
      title: `An assembly of its own, after ${record.name}`,
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: `${record.name} 2` }],
      deed: 'Make it',
      fault: ({ name }) => nameFault(name),
    });
    if (answers) await this.desk.commit(`own copy of ${record.name}`, ownCopy(chosen.stratum, chosen.use, record, content, String(answers['name']).trim()));
  }

  put(field: 'position' | 'turn', value: Vector3 | number): void {
    const chosen = this.selected();
    if (chosen) void this.desk.commit(`${field} of an assembly`, [setField(chosen.stratum, 'assembly', chosen.use, field, value as number)]);
  }

  /** Hides a thing in this use alone, or shows it as all others do. */
  async hide({ kind, id, state, isHidden }: WithinRow): Promise<void> {
    if (isHidden && state) await this.revert(state);
    else await this.onUse('hide a thing of an assembly here', (document, assembly) => [remove(assembly, kind, document(kind, id) as Item)]);
  }

  /** Moves a thing in this use alone, in the assembly's own directions. */
  async move({ kind, id, name }: WithinRow): Promise<void> {
    const answers = await this.ask.for({
      title: `Move ${name} here alone`,
      says: 'In the directions of the assembly; sums are read.',
      questions: vectorQuestions('By'),
      deed: 'Move',
    });
    if (!answers) return;
    await this.onUse('move a thing of an assembly here', (item, assembly) => {
      const seen = item(kind, id) as Item;
      return setFields({ stratum: assembly, kind, item: seen } as PlacedItem, movedFields({ kind, item: seen } as PlacedItemOf, vectorOf(answers)));
    });
  }

  async revert({ patch }: PatchState): Promise<void> {
    const chosen = this.selected();
    if (chosen) await this.desk.commit('as all have it', operationsOnUse(chosen.stratum, chosen.use, revertPatch(chosen.use.assembly, patch)));
  }

  /** Gives what this use has otherwise to all, after saying whom it reaches. */
  async giveToAll({ patch }: PatchState): Promise<void> {
    const chosen = this.selected();
    const document = chosen && this.openLevel.assemblies().get(chosen.use.assembly);
    if (!document) return;
    const levels = this.levelsOf(chosen.use.assembly);
    const data: LossData = {
      title: `Change ${this.nameOf(chosen.use.assembly)} for all?`,
      says: `It changes wherever the assembly stands, in ${levels.length} level${levels.length === 1 ? '' : 's'}:`,
      losses: levels,
      deed: 'Give it to all',
    };
    if (!(await firstValueFrom(this.dialogs.open<LossDialog, LossData, boolean>(LossDialog, { data, width: '460px' }).afterClosed()))) return;
    await this.desk.attempt(async () => {
      const pushed = pushPatch(
        assemblyOfUse(chosen.use, (kind, id) => document.item(kind, id)),
        patch,
      );
      await this.shared.commitForAll(`change ${this.nameOf(chosen.use.assembly)} for all`, operationsOnUse(chosen.stratum, chosen.use, pushed));
    });
  }

  async rename(id: string): Promise<void> {
    const record = this.desk.tables().stratum[id];
    const answers = await this.ask.for({
      title: 'Assembly',
      questions: [{ key: 'name', label: 'Name', kind: 'text', value: record.name }],
      deed: 'Keep',
      fault: ({ name }) => nameFault(name),
    });
    const now = this.desk.tables().stratum[id] as Stratum | undefined;
    if (answers && now) await this.desk.commit('name of an assembly', [setRecordField('stratum', now, 'name', String(answers['name']).trim())]);
  }

  /** Deletes an assembly that stands nowhere; of one that does it says where. */
  async delete(id: string): Promise<void> {
    const { stratum: records } = this.desk.tables();
    const record = records[id];
    const where = [...this.levelsOf(id), ...Object.values(records).flatMap(({ name, kit, assemblies }) => (kit && assemblies?.includes(id) ? [name] : []))];
    if (where.length > 0) {
      this.desk.refuse(
        `${record.name} stands, or once stood, in ${where.slice(0, 4).join(', ')}${where.length > 4 ? ` and ${where.length - 4} more` : ''}. Replace it there first.`,
      );
      return;
    }
    if (await this.desk.commit(`delete ${record.name}`, [remove(RECORDS_DOCUMENT, 'stratum', record)])) void this.router.navigate(['/layout']);
  }

  private async onUse(label: string, change: (item: (kind: ItemKind, id: string) => Item | undefined, assembly: string) => readonly Operation[]): Promise<void> {
    const chosen = this.selected();
    const document = chosen && this.openLevel.assemblies().get(chosen.use.assembly);
    if (!document) return;
    const { stratum, use } = chosen;
    const assembly = assemblyOfUse(use, (kind, id) => document.item(kind, id));
    const seen = patchStates(patchesOfUse(use), use.id, (kind, id) => document.item(kind, id));
    const item = (kind: ItemKind, id: string): Item | undefined => {
      const own = seen.find(({ patch }) => patch.target === id)?.patch;
      const shared = document.item(kind, id);
      return shared && own ? ({ ...shared, ...own.fields } as Item) : shared;
    };
    await this.desk.attempt(async () => {
      await this.desk.commit(label, operationsOnUse(stratum, use, operationsForOne(assembly, change(item, use.assembly))));
    });
  }

  private uses(): { readonly stratum: string; readonly use: AssemblyUse }[] {
    return this.desk.selected().flatMap(({ stratum, kind, item }) => (kind === 'assembly' ? [{ stratum, use: item as AssemblyUse }] : []));
  }

  private contentOf(assembly: string): StratumContent | undefined {
    const content = this.openLevel.assemblies().get(assembly)?.content();
    if (!content) this.desk.refuse(`${this.nameOf(assembly)} is not loaded, or is gone.`);
    return content;
  }

  private rowOf(kind: ItemKind, item: Item, state: PatchState | undefined): WithinRow {
    const piece = kind === 'placement' && 'piece' in item ? this.openLevel.pieces()[item.piece as string]?.name : undefined;
    const nested = kind === 'assembly' ? this.nameOf((item as AssemblyUse).assembly) : undefined;
    const own = 'name' in item && item.name !== '' ? item.name : undefined;
    const name = piece ?? nested ?? own ?? (kind === 'marker' && 'kind' in item ? String(item.kind) : kind);
    return { kind, id: item.id, name, otherwise: state ? wordsOf(state) : '', isHidden: state?.deed === 'hidden', state };
  }
}

/** What a use has otherwise, with what all others have. */
function wordsOf({ deed, patch, isIdle }: PatchState): string {
  if (isIdle) return 'of a thing that is gone';
  if (patch.change !== 'changed') return deed;
  const text = (value: unknown): string =>
    JSON.stringify(value)
      .replace(/["[\]]/g, '')
      .slice(0, 40);
  return `${deed}: ${Object.keys(patch.fields)
    .map((field) => `${field} ${text(patch.was[field])} → ${text(patch.fields[field])}`)
    .join('; ')}`;
}
