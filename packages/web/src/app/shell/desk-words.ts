import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { recordsFeature } from '../document/records/records-store';
import type { SeamDesk } from './seam';

/** What each desk has to say on the seam. */
@Injectable({ providedIn: 'root' })
export class DeskWords {
  private readonly store = inject(Store);
  private readonly setFindings = this.store.selectSignal(recordsFeature.selectSetFindings);

  readonly desks = computed((): SeamDesk[] => {
    const count = this.setFindings().length;
    return [{ name: 'Sets', path: '/sets', key: '1', says: count > 0 ? `${count} finding${count === 1 ? '' : 's'}` : '', tone: 'soft' }];
  });
}
