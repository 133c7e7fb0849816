import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { assembliesWithin, packedLevels, type StratumContent, type Target } from '@stravel/core';
import { PACK_FIXES, type FixPlan, type PackFix } from '@stravel/core/pack-fixes';
import { KitWork } from '../../bakes/kit-work';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { DocumentRegistry } from '../../document/document-registry';
import { recordsFeature } from '../../document/records/records-store';
import { newId } from '../../edits/operations';
import { Ask } from '../../ui/ask';

/** So many lines of a preview are shown; the rest is counted. */
const SHOWN = 60;

/** Puts right what a check finds, where no person is needed: shown first, then one edit. */
@Injectable()
export class TargetFixes {
  private readonly ask = inject(Ask);
  private readonly work = inject(KitWork);
  private readonly documents = inject(DocumentRegistry);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly all = PACK_FIXES;
  readonly failure = this.work.failure;

  constructor() {
    // Without the engine, which the page loads later, no name would be by its pattern, and a fix would rename them all.
    installLinearPatterns();
  }

  /** @returns whether something was changed */
  async fix(fix: PackFix, target: Target, without: readonly string[]): Promise<boolean> {
    const plan = await this.work.guard(() => this.plan(fix, target, without));
    if (!plan) return false;
    const { lines, left, operations, renames } = plan;
    const count = lines.length;
    const shown = lines.slice(0, SHOWN).map(({ what, before, after }) => `${what}: ${before} → ${after}`);
    const agreed = await this.ask.for({
      title: `${fix.name} (${count})`,
      text: count === 0 ? 'Nothing here can be fixed without you.' : 'One undo brings all of it back.',
      notes: [
        ...shown,
        ...(count > SHOWN ? [`and ${count - SHOWN} more`] : []),
        ...left.slice(0, SHOWN).map((one) => `Left for you: ${one}`),
        ...(left.length > SHOWN ? [`and ${left.length - SHOWN} more left for you`] : []),
      ],
      questions: [],
      command: count === 0 ? 'Close' : `Fix (${count})`,
    });
    if (!agreed || count === 0) return false;
    return this.work.renamePieces(renames, `${fix.name.toLowerCase()} (${count})`, operations);
  }

  private async plan(fix: PackFix, target: Target, without: readonly string[]): Promise<FixPlan> {
    const records = this.tables();
    const levels = packedLevels(records, { withAllPurposes: target.withAllPurposes, without });
    const stacked = new Set(levels.flatMap((level) => level.strata.map(({ stratum }) => stratum)));
    const ids = [...new Set([...stacked, ...assembliesWithin(records.stratum, [...stacked])])].filter((id) =>
      Object.hasOwn(records.stratum, id),
    );
    const strata = new Map<string, StratumContent>();
    for (const [i, id] of ids.entries()) {
      this.work.say(i / ids.length, 'reading levels');
      strata.set(id, (await this.documents.stratum(id)).content());
    }
    return fix.plan({ records, target, levels, strata, newId });
  }
}
