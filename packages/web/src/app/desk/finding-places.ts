import { Injectable, inject } from '@angular/core';
import type { Finding } from '@stravel/core';
import { Addresses } from '../addresses';
import { Workspace } from '../workspace';
import { DESKS, placeOf } from './desk';

/** Leads to what a finding is about. */
@Injectable({ providedIn: 'root' })
export class FindingPlaces {
  private readonly desks = inject(DESKS);
  private readonly addresses = inject(Addresses);
  private readonly workspace = inject(Workspace);

  async go(finding: Finding): Promise<void> {
    const { path, query } = placeOf(this.desks, finding);
    if (finding.place.level !== undefined) this.workspace.openLevel(finding.place.level);
    await this.addresses.go(path, query);
  }
}
