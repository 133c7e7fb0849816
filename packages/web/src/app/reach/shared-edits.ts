import { Injectable, inject, signal } from '@angular/core';
import { Dialogs } from '../ui/dialogs';
import { Store } from '@ngrx/store';
import { operationsForAll, operationsForOne, type Operation, type SharedStratum } from '@stravel/core';
import { OpenLevel } from '../document/level/open-level';
import { recordsFeature, selectReach } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { noteAssemblies } from './note-assemblies';
import { ReachDialog, type Belongs, type ReachDialogData } from './reach-dialog';

/** Changes of the open level's strata: what is shared changes for all levels or for this one alone, as the person says. */
@Injectable({ providedIn: 'root' })
export class SharedEdits {
  private readonly edits = inject(EditLog);
  private readonly dialogs = inject(Dialogs);
  private readonly openLevel = inject(OpenLevel);
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly reach = this.store.selectSignal(selectReach);
  /** Strata of which the person knows that all their levels change. */
  private readonly warned = new Set<string>();
  private readonly chosen = signal<ReadonlyMap<string, Belongs>>(new Map());

  /** What the person said of a stratum in the open level, undefined when it was not asked yet. */
  belongs(stratum: string): Belongs | undefined {
    return this.chosen().get(this.keyOf(stratum));
  }

  choose(stratum: string, belongs: Belongs): void {
    this.chosen.update((chosen) => new Map(chosen).set(this.keyOf(stratum), belongs));
  }

  /** Ids of the levels that share a stratum. */
  levelsOf(stratum: string): readonly string[] {
    return this.reach().get(stratum) ?? [];
  }

  /**
   * Commits operations on items as the open level sees them, after asking where they belong.
   * @returns false when the person left it
   * @throws CoreError 'PATCH_KIND' when a level cannot have such a thing otherwise, 'ASSEMBLY_IN_ITSELF'
   */
  async commit(label: string, operations: readonly Operation[]): Promise<boolean> {
    if (operations.length === 0) return false;
    const belongs = new Map<string, Belongs>();
    for (const document of new Set(operations.map((operation) => operation.document))) {
      const answer = await this.ask(document);
      if (!answer) return false;
      belongs.set(document, answer);
    }
    const all = [...belongs].flatMap(([document, belong]) =>
      this.translated(
        document,
        belong,
        operations.filter((operation) => operation.document === document),
      ),
    );
    await this.edits.commit(this.labelled(label, belongs), [...all, ...noteAssemblies(this.tables(), all)]);
    return all.length > 0;
  }

  /**
   * Commits operations on what all levels that share a stratum have in common, after naming them once.
   * @returns false when the person left it
   */
  async commitWhole(label: string, operations: readonly Operation[]): Promise<boolean> {
    for (const stratum of new Set(operations.map(({ document }) => document))) {
      const key = this.keyOf(stratum);
      if (this.levelsOf(stratum).length < 2 || this.warned.has(key)) continue;
      if (!(await this.open(stratum, true))) return false;
      this.warned.add(key);
    }
    await this.edits.commit(label, operations);
    return true;
  }

  /** A stratum of the open level as core's patch operations take it; undefined when it is not loaded. */
  sharedStratum(id: string): SharedStratum | undefined {
    const document = this.openLevel.shared().find((one) => one.id === id);
    const level = this.openLevel.level()?.id;
    return document && level !== undefined
      ? {
          id,
          level,
          item: (kind, item) => document.item(kind, item),
          patch: (patch) => document.tables.patch.get(patch),
          patches: () => document.tables.patch.values(),
        }
      : undefined;
  }

  private translated(document: string, belongs: Belongs, operations: readonly Operation[]): readonly Operation[] {
    const shared = this.sharedStratum(document);
    if (!shared) return operations;
    if (belongs === 'one') return operationsForOne(shared, operations);
    // Without any patch the operations stand as they are.
    const [any] = shared.patches();
    return any ? operationsForAll(shared, operations) : operations;
  }

  private async ask(stratum: string): Promise<Belongs | undefined> {
    const levels = this.levelsOf(stratum);
    // Within an assembly one works for all that have it.
    if (levels.length < 2 || this.openLevel.level()?.id === stratum) return 'all';
    const known = this.belongs(stratum);
    if (known) return known;
    const answer = await this.open(stratum, false);
    if (answer) this.choose(stratum, answer);
    return answer;
  }

  private open(stratum: string, isWhole: boolean): Promise<Belongs | undefined> {
    const data: ReachDialogData = {
      stratum: this.tables().stratum[stratum].name,
      levels: this.levelsOf(stratum).map((id) => this.tables().level[id].name),
      level: this.openLevel.level()?.name ?? 'this level',
      isWhole,
    };
    return this.dialogs.open(ReachDialog, data);
  }

  private labelled(label: string, belongs: ReadonlyMap<string, Belongs>): string {
    const reach = Math.max(
      1,
      ...[...belongs].map(([stratum, belong]) => (belong === 'all' ? this.levelsOf(stratum).length : 1)),
    );
    return reach > 1 ? `${label} in ${reach} levels` : label;
  }

  private keyOf(stratum: string): string {
    return `${this.openLevel.level()?.id ?? ''} ${stratum}`;
  }
}
