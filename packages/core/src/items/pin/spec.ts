import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';

export const PIN: ItemSpec<'pin'> = {
  words: { one: 'pin', many: 'pins' },
  traits: { local: false, assembled: false, linked: false, selected: false, copied: true, thing: true, named: false },
  optional: {},
  place: null,
  name: () => '',
  group: () => null,
  alike: () => true,
  ids: (fields, each) => overIds(fields, each, { recipe: { to: 'recipe' } }),
};
