import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { counted, type Finding } from '@stravel/core';
import { Bakes } from '../bakes/bakes';
import { recordsFeature } from '../document/records/records-store';
import { PackCheck } from './pack-check';
import { SetCheck } from './set-check';

/** Every finding of every desk, in one place. */
@Injectable({ providedIn: 'root' })
export class FindingsHome {
  private readonly store = inject(Store);
  private readonly bakes = inject(Bakes);
  private readonly pack = inject(PackCheck);
  private readonly setFindings = inject(SetCheck).findings;
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);

  readonly all = computed((): readonly Finding[] => [
    ...this.setFindings(),
    ...this.bakes.findings(),
    ...this.pack.findings(),
  ]);
  /** Findings that nobody has accepted, or whose acceptance has run out. */
  readonly open = computed(() => {
    const accepted = this.tables().acceptance;
    const today = new Date().toISOString().slice(0, 10);
    return this.all().filter(({ id }) => !(accepted[id] && accepted[id].until >= today));
  });
  readonly errorCount = computed(() => this.open().filter(({ severity }) => severity === 'error').length);
  readonly summary = computed(() => {
    const count = this.open().length;
    return count === 0 ? 'No findings' : counted(count, 'finding');
  });
}
