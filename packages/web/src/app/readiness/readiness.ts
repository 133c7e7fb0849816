import { Injectable, computed, inject } from '@angular/core';
import { Dialogs } from '../ui/dialogs';
import { Store } from '@ngrx/store';
import {
  DEFAULT_READINESS,
  holdAgainst,
  plainJson,
  readinessFaults,
  type ReadinessRules,
  type Tally,
} from '@stravel/core';
import { bakesFeature, costsOf, type LevelBakes } from '../bakes/bakes-store';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { setRecordField } from '../edits/operations';
import { FindingsHome } from '../findings/findings-home';
import type { ReadinessData } from './readiness-dialog';

const NONE: readonly string[] = [];

/** Which levels are ready by the collection's own rules, and what keeps the others from it. */
@Injectable({ providedIn: 'root' })
export class Readiness {
  private readonly store = inject(Store);
  private readonly edits = inject(EditLog);
  private readonly dialogs = inject(Dialogs);
  private readonly findings = inject(FindingsHome);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly settings = this.store.selectSignal(recordsFeature.selectSettings);
  private readonly bakes = this.store.selectSignal(bakesFeature.selectByLevel);

  readonly rules = computed((): ReadinessRules => this.settings()?.readiness ?? DEFAULT_READINESS);
  private readonly errors = computed(() => {
    const counts = new Map<string, number>();
    for (const { severity, place } of this.findings.open()) {
      if (severity === 'error' && place.level !== undefined)
        counts.set(place.level, (counts.get(place.level) ?? 0) + 1);
    }
    return counts;
  });
  private readonly codes = computed(() => {
    const counts = new Map<string, number>();
    for (const { code } of this.levels())
      if (code !== '') counts.set(code.toUpperCase(), (counts.get(code.toUpperCase()) ?? 0) + 1);
    return counts;
  });
  readonly faults = computed((): ReadonlyMap<string, readonly string[]> => {
    const [rules, tables, bakes, errors, codes] = [
      this.rules(),
      this.tables(),
      this.bakes(),
      this.errors(),
      this.codes(),
    ];
    const devices = rules.devices.flatMap((id) => (Object.hasOwn(tables.device, id) ? [tables.device[id]] : []));
    return new Map(
      this.levels().map((level) => {
        const own = bakes[level.id] as LevelBakes | undefined;
        const costs = costsOf(own);
        // Bakes from before things were counted one by one have no tally.
        const tally = (costs.count ?? costs.baked?.figures)?.tally as Tally | undefined;
        return [
          level.id,
          readinessFaults(level, rules, tables.field, {
            isFresh:
              own !== undefined &&
              own.sight.state === 'fresh' &&
              own.figures.state === 'fresh' &&
              own.rehearsals.every(({ state }) => state === 'fresh'),
            markers: tally?.markers ?? null,
            errors: errors.get(level.id) ?? 0,
            codeIsTaken: (codes.get(level.code.toUpperCase()) ?? 0) > 1,
            overOn: devices
              .filter((device) => {
                const { over, undecided } = holdAgainst(costs, device);
                return over.length + undecided.length > 0;
              })
              .map(({ name }) => name),
          }),
        ];
      }),
    );
  });
  readonly faultsOf = computed(() => {
    const faults = this.faults();
    return (level: string): readonly string[] => faults.get(level) ?? NONE;
  });

  /** Shows what is asked of a level, and of one level what it lacks. */
  open(level?: string): void {
    const tables = this.tables();
    const data: ReadinessData = {
      rules: this.rules(),
      fields: Object.values(tables.field).filter(({ register }) => !register),
      devices: Object.values(tables.device),
      level: level === undefined ? undefined : { name: tables.level[level].name, faults: () => this.faultsOf()(level) },
    };
    void this.dialogs
      .bring(() => import('./readiness-dialog').then(({ ReadinessDialog }) => ReadinessDialog), data)
      .then((rules) => {
        const settings = this.settings();
        if (rules && settings)
          void this.edits.commit('what makes a level ready', [
            setRecordField('collection', settings, 'readiness', plainJson(rules)),
          ]);
      });
  }
}
