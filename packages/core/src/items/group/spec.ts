import type { Group } from '../../model/group';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { STANDING } from '../traits';

const IDS = idUses<Group>({ parent: { to: 'group' } });

export const GROUP: ItemSpec<'group'> = {
  words: { one: 'group', many: 'groups' },
  traits: { ...STANDING, assembled: false, selected: false, thing: false, named: true },
  optional: {},
  place: null,
  name: ({ name }) => name,
  group: () => null,
  alike: () => true,
  ids: (fields, each) => overIds(fields, each, IDS),
};
