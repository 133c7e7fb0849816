import { Injectable, inject } from '@angular/core';
import { Addresses } from '../addresses';
import type { MenuEntry } from '../ui/context-menus';
import { Workspace } from '../workspace';
import { DESKS } from './desk';

/** Opens a level in one of the desks that show one. */
@Injectable({ providedIn: 'root' })
export class LevelPlaces {
  private readonly addresses = inject(Addresses);
  private readonly workspace = inject(Workspace);
  readonly desks = inject(DESKS).filter(({ namesLevel }) => namesLevel);

  async open(level: string, desk: string): Promise<void> {
    this.workspace.openLevel(level);
    await this.addresses.go([`/${desk}`, level]);
  }

  /** A line of a context menu a desk. */
  entries(level: string): MenuEntry[] {
    return this.desks.map(({ id, label }) => ({ text: `Open in ${label}`, run: () => this.open(level, id) }));
  }
}
