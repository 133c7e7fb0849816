import { Injectable, computed, inject, signal } from '@angular/core';
import { Sheets } from '../../../level-desk/sheets';
import type { PlanDensity } from '@stravel/core';
import { Compute } from '../../../compute/compute';
import { workUntilLeft } from '../../../compute/work-in-hand';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { LayoutDesk } from '../editing/layout-desk';
import { OverviewSheet, type OverviewChoice, type OverviewData } from './overview-sheet';
import { itemsOfSorts, overviewSorts, placeWords, type OverviewItem } from './overview-items';

/** What the overview shows. */
export interface Overview {
  readonly level: string;
  readonly items: readonly OverviewItem[];
  readonly density: PlanDensity;
}

/** A region in words. */
export interface RegionLine {
  readonly text: string;
  readonly low: readonly [number, number];
  readonly high: readonly [number, number];
}

/** Looks at the things of chosen categories and kinds: how densely they stand, and where too many or none. */
@Injectable()
export class OverviewDesk {
  private readonly sheets = inject(Sheets);
  private readonly compute = inject(Compute);
  private readonly registry = inject(DocumentRegistry);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly choice = computed((): OverviewChoice => {
    const { densitySorts: sorts, densityReachMetres: reachMetres } = this.desk.settings();
    return { sorts, reachMetres };
  });
  private readonly made = signal<Overview | undefined>(undefined);
  private readonly work = workUntilLeft();
  readonly isMaking = computed(() => this.work.progress() !== undefined);

  /** What is shown of the open level; undefined while all is shown as usual. */
  readonly shown = computed(() => {
    const made = this.made();
    return made && made.level === this.openLevel.level()?.id ? made : undefined;
  });
  readonly regions = computed((): RegionLine[] => {
    const shown = this.shown();
    if (!shown) return [];
    const { density } = shown;
    const all = {
      low: density.origin,
      high: [
        density.origin[0] + density.columns * density.cellMetres,
        density.origin[1] + density.rows * density.cellMetres,
      ] as const,
    };
    return density.regions.map(({ kind, squareMetres, density: within, low, high }) => ({
      text: `${kind}, ${placeWords(low, high, all)}: ${Math.round(squareMetres)} m², ${kind === 'crowded' ? `${(within / density.mean).toFixed(1)} times the average` : 'nearly empty'}`,
      low,
      high,
    }));
  });

  async choose(): Promise<void> {
    this.registry.contentVersion();
    const data: OverviewData = { ...overviewSorts(this.openLevel.strata()), ...this.choice() };
    const choice = await this.sheets.open(OverviewSheet, data);
    if (!choice) return;
    this.desk.put({ densitySorts: choice.sorts, densityReachMetres: choice.reachMetres });
    await this.make();
  }

  cancel(): void {
    this.work.cancel();
  }

  private async make(): Promise<void> {
    this.cancel();
    const level = this.openLevel.level()?.id;
    const { sorts, reachMetres } = this.choice();
    const items = itemsOfSorts(this.openLevel.strata(), new Set(sorts));
    if (level === undefined || items.length === 0) {
      this.made.set(undefined);
      return;
    }
    const points = Float64Array.from(items.flatMap(({ x, z }) => [x, z]));
    const density = await this.work.do('starting', () =>
      this.work.keep(this.compute.run('plan-density', { points, reachMetres }, { onProgress: this.work.say })),
    );
    if (density) this.made.set({ level, items, density });
    else if (this.work.failure()) this.desk.notify(this.work.failure());
  }
}
