import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { KitLoad, RecordTables } from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { recordsFeature } from '../document/records/records-store';
import { Session } from '../session';

/** What a game loads of each kit, as the server reads it from the kits' files. */
@Injectable({ providedIn: 'root' })
export class KitLoads {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private known:
    | { readonly of: Pick<RecordTables, 'kit' | 'piece' | 'target'>; readonly loads: Promise<Record<string, KitLoad>> }
    | undefined;

  /** By id of the kit, as the kits stand now; asked for again only when kits, pieces or targets have changed. */
  of(): Promise<Record<string, KitLoad>> {
    const { kit, piece, target } = this.tables();
    if (this.known?.of.kit === kit && this.known.of.piece === piece && this.known.of.target === target)
      return this.known.loads;
    const loads = this.ask();
    this.known = { of: { kit, piece, target }, loads };
    const forget = (): void => {
      if (this.known?.loads === loads) this.known = undefined;
    };
    // A kit that the server has not got yet is asked for again.
    loads.then((made) => Object.keys(kit).every((id) => Object.hasOwn(made, id)) || forget(), forget);
    return loads;
  }

  private async ask(): Promise<Record<string, KitLoad>> {
    const collection = this.session.collection();
    if (!collection) return {};
    return (await this.api.json<{ loads: Record<string, KitLoad> }>(`/api/collections/${collection.id}/kits/loads`))
      .loads;
  }
}
