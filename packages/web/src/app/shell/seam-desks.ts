import { Injectable, computed, inject } from '@angular/core';
import { DESKS } from '../desk/desk';
import type { SeamDesk } from './seam';

/** Every desk with what it has to say, as it stands on the seam. */
@Injectable({ providedIn: 'root' })
export class SeamDesks {
  private readonly stated = inject(DESKS).map(({ id, label, status }, i) => ({
    name: label,
    path: `/${id}`,
    key: String(i + 1),
    status: status(),
  }));

  readonly desks = computed((): SeamDesk[] => this.stated.map(({ status, ...desk }) => ({ ...desk, ...status() })));
}
