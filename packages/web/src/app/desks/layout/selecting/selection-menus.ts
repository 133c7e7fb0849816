import { ARRANGE_MENU } from '../arrange/arrange-menu';
import { LayoutDesk } from '../editing/layout-desk';
import type { PlacedItem } from '../editing/placed-item';
import { itemDesk } from '../kinds';
import { command, type SelectionCommand, type SelectionMenu } from '../kinds/item-desk';

const always = (): boolean => true;
const FIRST = [command('Duplicate', always, LayoutDesk, (desk) => desk.duplicate())];
const TURN = command('Rotate 15°', always, LayoutDesk, (desk) => desk.turn(15));
const LAST = [command('Delete', always, LayoutDesk, (desk) => desk.delete())];

/** Menus for what is selected: those for everything, and that of its kind when it is all of one. */
export function menusFor(selected: readonly PlacedItem[]): SelectionMenu[] {
  const own = kindOfAll(selected)?.menu;
  return [ARRANGE_MENU, ...(own ? [own] : [])];
}

/** Commands beside the menus: before them, in a menu of their own after them, and at the end. */
export function commandsFor(
  selected: readonly PlacedItem[],
): Readonly<Record<'first' | 'more' | 'last', readonly SelectionCommand[]>> {
  const own = kindOfAll(selected)?.commands ?? [];
  return { first: FIRST, more: [TURN, ...own.filter(({ isFor }) => isFor(selected))], last: LAST };
}

function kindOfAll(selected: readonly PlacedItem[]): ReturnType<typeof itemDesk> | undefined {
  const first = selected.at(0);
  return first && selected.every(({ kind }) => kind === first.kind) ? itemDesk(first.kind) : undefined;
}
