import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { TURN_PLACE } from '../place';

export const PLACEMENT: ItemSpec<'placement'> = {
  words: { one: 'placement', many: 'placements' },
  traits: { local: true, assembled: true, linked: true, selected: true, copied: true, thing: true, named: false },
  optional: { group: true, values: true },
  place: TURN_PLACE,
  name: ({ piece }, names) => names.piece(piece),
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.piece === b.piece,
  ids: (fields, each) => overIds(fields, each, { group: { to: 'group' }, piece: { to: 'piece', isStrict: true } }),
};
