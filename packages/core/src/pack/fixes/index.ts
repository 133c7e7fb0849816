import type { PackFix } from './fix';
import { ADD_GROUPS, GROUP_OBJECTS } from './groups';
import { RENAME_PIECES } from './rename-pieces';
import { RESAMPLE_PATHS } from './resample-paths';

export type { FixPlan, FixScene, PackFix } from './fix';

/** What can be put right without a person: a new fix is a file and a line here. A door of its own: only one desk needs it. */
export const PACK_FIXES: readonly PackFix[] = [RENAME_PIECES, RESAMPLE_PATHS, ADD_GROUPS, GROUP_OBJECTS];
