import { GroupsDesk } from '../groups/groups-desk';
import { command, type SelectionMenu } from '../kinds/item-desk';
import { REPLACE_PIECE } from '../kinds/placement/replace-piece';
import { ArrangeDesk } from './arrange-desk';

const arrange = (text: string, run: (desk: ArrangeDesk) => unknown): ReturnType<typeof command> =>
  command(text, () => true, ArrangeDesk, run);

/** What can be done with whatever is selected. */
export const ARRANGE_MENU: SelectionMenu = {
  label: 'Arrange',
  commands: [
    arrange('Move by exact amounts…', (desk) => desk.moveBy()),
    arrange('Align…', (desk) => desk.align()),
    arrange('Space evenly…', (desk) => desk.distribute()),
    arrange('Repeat in a row…', (desk) => desk.array()),
    arrange('Mirror…', (desk) => desk.mirror()),
    arrange('Place on surface', (desk) => desk.drop()),
    arrange('Randomise…', (desk) => desk.vary()),
    REPLACE_PIECE,
    command(
      'Remove from groups',
      () => true,
      GroupsDesk,
      (desk) => desk.ungroup(),
    ),
  ],
};
