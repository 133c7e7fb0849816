import { Injectable, inject } from '@angular/core';
import { Router, type NavigationExtras, type Params } from '@angular/router';
import { Store } from '@ngrx/store';
import { DESKS } from './desk/desk';
import { recordsFeature } from './document/records/records-store';
import { readAddress } from './read-address';
import { Session } from './session';

/** The address of an id among those of a collection: of a level its key, of an assembly its id. */
export function addressOf(levels: Readonly<Record<string, { readonly key: string }>>, id: string): string {
  return Object.hasOwn(levels, id) ? levels[id].key : id;
}

/** Where things are in the open collection. Everything within it is named as ['/layout', level id]; the address adds collection and key. */
@Injectable({ providedIn: 'root' })
export class Addresses {
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly levels = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly levelDesks = inject(DESKS).flatMap(({ id, namesLevel }) => (namesLevel ? [id] : []));

  /** A path within the collection as the router takes it. */
  path([desk, ...rest]: readonly string[]): string[] {
    const within = desk.replace(/^\//, '').split('/');
    const of = this.isOfLevel(within[0]) ? rest.map((id) => addressOf(this.levels().level, id)) : rest;
    return ['/c', this.session.collection()?.id ?? '', ...within, ...of];
  }

  go(path: readonly string[], query: Params = {}, extras: NavigationExtras = {}): Promise<boolean> {
    return this.router.navigate(this.path(path), { queryParams: query, ...extras });
  }

  /** Whether the address of a desk names one level, by the level's key. */
  isOfLevel(desk: string): boolean {
    return this.levelDesks.includes(desk);
  }

  /** The desk that is open, without level and collection; '' outside of a collection. */
  desk(): string {
    return readAddress(this.router.url.split(/[?#]/)[0])?.path.at(0) ?? '';
  }
}
