import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';

export const GROUP: ItemSpec<'group'> = {
  words: { one: 'group', many: 'groups' },
  traits: { local: true, assembled: false, linked: true, selected: false, copied: true, thing: false, named: true },
  optional: {},
  place: null,
  name: ({ name }) => name,
  group: () => null,
  alike: () => true,
  ids: (fields, each) => overIds(fields, each, { parent: { to: 'group' } }),
};
