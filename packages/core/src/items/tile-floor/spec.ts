import type { ItemSpec } from '../item-spec';
import { ON_GRID } from '../on-grid';

export const TILE_FLOOR: ItemSpec<'tileFloor'> = { words: { one: 'tile floor', many: 'tile floors' }, ...ON_GRID };
