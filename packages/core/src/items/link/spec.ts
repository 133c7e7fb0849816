import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';

export const LINK: ItemSpec<'link'> = {
  words: { one: 'link', many: 'links' },
  traits: { local: true, assembled: true, linked: false, selected: true, copied: true, thing: true, named: false },
  optional: {},
  place: null,
  name: () => '',
  group: () => null,
  alike: () => true,
  ids: (fields, each) => overIds(fields, each, { emitter: { to: 'item' }, target: { to: 'item' } }),
};
