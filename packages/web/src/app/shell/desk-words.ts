import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { Bakes } from '../bakes/bakes';
import { recordsFeature } from '../document/records/records-store';
import { Workspace } from '../workspace';
import type { SeamDesk } from './seam';

/** What each desk has to say on the seam. */
@Injectable({ providedIn: 'root' })
export class DeskWords {
  private readonly bakes = inject(Bakes);
  private readonly workspace = inject(Workspace);
  private readonly setFindings = inject(Store).selectSignal(recordsFeature.selectSetFindings);

  readonly desks = computed((): SeamDesk[] => {
    const findings = this.setFindings().length;
    const sight = this.bakes.byLevel()[this.workspace.level()?.id ?? '']?.sight;
    const leaks = sight?.summary && !sight.summary.closed;
    const over = this.bakes.overCount();
    return [
      { name: 'Sets', path: '/sets', key: '1', says: findings > 0 ? `${findings} finding${findings === 1 ? '' : 's'}` : '', tone: 'soft' },
      { name: 'Layout', path: '/layout', key: '2', says: '', tone: 'soft' },
      {
        name: 'Sight',
        path: '/sight',
        key: '3',
        says: leaks ? 'leaks' : sight ? (sight.state === 'none' ? 'never baked' : sight.state) : '',
        tone: leaks ? 'over' : sight?.state === 'fresh' ? 'soft' : 'near',
      },
      { name: 'Budget', path: '/budget', key: '4', says: over > 0 ? `${over} over` : '', tone: 'over' },
    ];
  });
}
