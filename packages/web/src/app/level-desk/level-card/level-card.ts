import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { setPathText } from '@stravel/core';
import { Bakes } from '../../bakes/bakes';
import { BUDGET_OF, MEASURES, measureText } from '../../bakes/core-bands';
import { OpenLevel } from '../../document/level/open-level';
import { recordsFeature } from '../../document/records/records-store';
import { Session } from '../../session';
import { LimitBar } from '../../ui/limit-bar';
import { ColumnSection } from '../column-section';
import { LevelFindings } from './level-findings';

/** Told before a figure that is no measured one. */
const SIGNS = { known: '', bound: '≤ ', stale: 'stale ', 'not known': '? ' } as const;

/** The open level while nothing is selected: its edges, its figures against the device, its findings with errors first. */
@Component({
  selector: 'sv-level-card',
  imports: [ColumnSection, LevelFindings, LimitBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './level-card.html',
  styleUrl: './level-card.scss',
})
export class LevelCard {
  private readonly bakes = inject(Bakes);
  private readonly openLevel = inject(OpenLevel);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly session = inject(Session);
  readonly level = this.openLevel.level;
  readonly set = computed(() => {
    const level = this.level();
    return level && !this.openLevel.isAssembly() ? setPathText(this.tables().set, level.set) : '';
  });
  private readonly baked = computed(() => this.bakes.byLevel()[this.level()?.id ?? '']);
  /** Whether one can leave the level, as far as that is known. */
  readonly edges = computed(() => {
    const { state, summary } = this.baked()?.sight ?? { state: 'none', summary: null };
    if (!summary) return { text: 'Not baked: not known', tone: 'near' };
    const old = state === 'fresh' ? '' : ', by a stale bake';
    if (this.level()?.openSky === true) return { text: `Open sky${old}`, tone: '' };
    if (summary.closed) return { text: `Closed${old}`, tone: state === 'fresh' ? 'good' : 'near' };
    return summary.wayOut
      ? { text: `Open to the outside${old}`, tone: 'over' }
      : { text: `Nothing blocks the view${old}`, tone: 'near' };
  });
  readonly figures = computed(() => {
    const held = this.bakes.held().get(this.level()?.id ?? '');
    return MEASURES.map((measure) => {
      const budget = BUDGET_OF[measure];
      const figure = held?.figures[budget] ?? { state: 'not known' as const, value: undefined, share: undefined };
      const { state, value, share } = figure;
      return {
        name: measure,
        state,
        share: share ?? 0,
        text: value === undefined ? 'not known' : SIGNS[state] + measureText(measure, value),
        isOver: held?.over.includes(budget) === true,
      };
    });
  });
}
