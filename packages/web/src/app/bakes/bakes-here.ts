import { inject } from '@angular/core';
import { Workspace } from '../workspace';
import { Bakes } from './bakes';
import type { LevelBakes } from './bakes-store';

/** What is known of the bakes of the level that the desks are on. Must be called where things are injected. */
export function bakesHere(): () => LevelBakes | undefined {
  const bakes = inject(Bakes);
  const workspace = inject(Workspace);
  return () => bakes.byLevel()[workspace.level()?.id ?? ''];
}
