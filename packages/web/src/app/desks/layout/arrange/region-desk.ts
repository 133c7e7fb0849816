import { Injectable, inject } from '@angular/core';
import { counted, specOf, type PlanPoint, type Vector3 } from '@stravel/core';
import { OpenLevel } from '../../../document/level/open-level';
import { LevelView } from '../../../plate/level-view';
import { Ask } from '../../../ui/ask';
import { LayoutDesk } from '../editing/layout-desk';
import { moveRegion, type RegionMove } from './region-move';
import { vectorOf, vectorQuestions } from '../parts/vector-questions';

const NOTHING: Vector3 = [0, 0, 0];

/** Moves everything within a drawn region by exact amounts. */
@Injectable()
export class RegionDesk {
  private readonly ask = inject(Ask);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly range = inject(LevelView).range;

  async move(from: PlanPoint, to: PlanPoint): Promise<void> {
    const { bottom, top } = this.range();
    const held = this.plan(from, to, -1e6, 1e6, NOTHING);
    const shown = this.plan(from, to, bottom, top, NOTHING);
    const answers = await this.ask.for({
      title: 'Move a region',
      text: `${words(held)} at all heights; ${words(shown)} within the heights shown.${held.locked.length > 0 ? ` ${counted(held.locked.length, 'more is', 'more are')} locked and will not move.` : ''}`,
      questions: [
        ...vectorQuestions('By'),
        {
          key: 'heights',
          label: 'Move objects at',
          kind: 'choice',
          value: 'all',
          choices: [
            { value: 'all', name: 'all heights' },
            { value: 'shown', name: 'the heights shown' },
          ],
        },
      ],
      command: 'Move',
    });
    if (!answers) return;
    const isAll = answers['heights'] === 'all';
    const { operations, locked } = this.plan(from, to, isAll ? -1e6 : bottom, isAll ? 1e6 : top, vectorOf(answers));
    if (locked.length > 0)
      this.desk.notify(
        `${counted(locked.length, 'object in the region is', 'objects in the region are')} locked and did not move.`,
      );
    await this.desk.commit('move a region', operations);
  }

  private plan([x0, z0]: PlanPoint, [x1, z1]: PlanPoint, bottom: number, top: number, by: Vector3): RegionMove {
    const box = {
      min: [Math.min(x0, x1), bottom, Math.min(z0, z1)] as Vector3,
      max: [Math.max(x0, x1), top, Math.max(z0, z1)] as Vector3,
    };
    const plate = this.desk.plate();
    return moveRegion(
      this.openLevel.strata(),
      box,
      by,
      ({ stratum, kind, id }) => plate?.item(stratum, kind, id)?.bounds,
      (ref) => this.desk.isItemLocked(ref),
    );
  }
}

function words({ counts }: RegionMove): string {
  const parts = [...counts].map(([kind, count]) => counted(count, specOf(kind).words.one, specOf(kind).words.many));
  return parts.join(', ') || 'nothing';
}
