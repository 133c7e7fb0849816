import { effect, inject, untracked, type Signal } from '@angular/core';
import { Router } from '@angular/router';
import { OpenLevel } from '../document/level/open-level';
import { Workspace } from '../workspace';
import type { PlateView } from './plate-view';

/**
 * Keeps a desk's page on the level of its address: opens it, and brings it into view once it is loaded. Without one in the
 * address, the level last worked on is taken. Must be called where things are injected.
 * @param opened called when another level is opened
 * @param frame brings the level into view
 */
export function followLevel(desk: string, id: Signal<string | undefined>, plate: Signal<PlateView | undefined>, opened: () => void, frame: () => void): void {
  const router = inject(Router);
  const workspace = inject(Workspace);
  const openLevel = inject(OpenLevel);
  let framed = '';
  effect(() => {
    const level = id() ?? workspace.level()?.id;
    if (level === undefined) return;
    untracked(() => {
      if (id() === undefined) void router.navigate([`/${desk}`, level], { replaceUrl: true });
      openLevel.open(level);
      // The other desks stay on the level that one came from.
      if (!openLevel.isAssembly()) workspace.openLevel(level);
      opened();
    });
  });
  effect(() => {
    const level = openLevel.level();
    if (!level || !plate() || openLevel.isLoading() || framed === level.id) return;
    framed = level.id;
    setTimeout(frame);
  });
}
