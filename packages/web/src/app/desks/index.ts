import type { Desk } from '../desk/desk';
import { BUDGET_DESK } from './budget/manifest';
import { CELLS_DESK } from './cells/manifest';
import { DETAIL_DESK } from './detail/manifest';
import { LAYOUT_DESK } from './layout/manifest';
import { PACK_DESK } from './pack/manifest';
import { SECTIONS_DESK } from './sections/manifest';
import { SETS_DESK } from './sets/manifest';
import { SIGHT_DESK } from './sight/manifest';

/** Every desk, in its order on the seam. */
export const ALL_DESKS: readonly Desk[] = [
  SETS_DESK,
  LAYOUT_DESK,
  SECTIONS_DESK,
  CELLS_DESK,
  DETAIL_DESK,
  SIGHT_DESK,
  BUDGET_DESK,
  PACK_DESK,
];
