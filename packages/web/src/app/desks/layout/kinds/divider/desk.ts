import type { ItemDesk } from '../item-desk';
import { DividerCard } from './divider-card';

export const DIVIDER_DESK: ItemDesk<'divider'> = { card: DividerCard };
