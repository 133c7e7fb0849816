import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  BUDGET_MEASURES,
  bytesText,
  countText,
  counted,
  setPathText,
  timeText,
  type BudgetMeasure,
  type Finding,
} from '@stravel/core';
import { Bakes } from '../../bakes/bakes';
import { FindingPlaces } from '../../desk/finding-places';
import { OpenLevel } from '../../document/level/open-level';
import { recordsFeature } from '../../document/records/records-store';
import { FindingsHome } from '../../findings/findings-home';
import { Session } from '../../session';
import { LimitBar } from '../../ui/limit-bar';
import { ColumnSection } from '../column-section';

const WORDS: Readonly<Record<BudgetMeasure, string>> = {
  triangles: 'triangles',
  drawCalls: 'draw calls',
  memoryBytes: 'memory',
  loadMs: 'load time',
  diskBytes: 'on disk',
};
const TEXT: Readonly<Record<BudgetMeasure, (value: number) => string>> = {
  triangles: countText,
  drawCalls: countText,
  memoryBytes: bytesText,
  loadMs: timeText,
  diskBytes: bytesText,
};
/** Told before a figure that is no measured one. */
const SIGNS = { known: '', bound: '≤ ', stale: 'stale ', 'not known': '? ' } as const;
const RANKS = { error: 0, warning: 1, note: 2 } as const;
const MOST_FINDINGS = 6;

/** The open level while nothing is selected: its edges, its figures against the device, its findings with errors first. */
@Component({
  selector: 'sv-level-card',
  imports: [ColumnSection, LimitBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './level-card.html',
  styleUrl: './level-card.scss',
})
export class LevelCard {
  private readonly bakes = inject(Bakes);
  private readonly findings = inject(FindingsHome);
  private readonly places = inject(FindingPlaces);
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
    return BUDGET_MEASURES.map((measure) => {
      const figure = held?.figures[measure] ?? { state: 'not known' as const, value: undefined, share: undefined };
      const { state, value, share } = figure;
      return {
        name: WORDS[measure],
        state,
        share: share ?? 0,
        text: value === undefined ? 'not known' : SIGNS[state] + TEXT[measure](value),
        isOver: held?.over.includes(measure) === true,
      };
    });
  });
  private readonly found = computed((): readonly Finding[] => {
    const id = this.level()?.id;
    return this.findings
      .open()
      .filter(({ place }) => place.level === id)
      .sort((a, b) => RANKS[a.severity] - RANKS[b.severity]);
  });
  readonly shown = computed(() => this.found().slice(0, MOST_FINDINGS));
  readonly rest = computed(() => this.found().length - this.shown().length);
  readonly findingsNote = computed(() =>
    this.found().length === 0 ? 'none' : counted(this.found().length, 'finding'),
  );

  go(finding: Finding): void {
    void this.places.go(finding);
  }
}
