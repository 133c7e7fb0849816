import type { ItemSpec } from '../item-spec';
import { ON_GRID } from '../on-grid';

export const MASK: ItemSpec<'mask'> = { words: { one: 'mask', many: 'masks' }, ...ON_GRID };
