import type { Placement } from '../../model/placement';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { TURN_PLACE } from '../place';
import { STANDING } from '../traits';

const IDS = idUses<Placement>({ group: { to: 'group' }, piece: { to: 'piece', isStrict: true } });

export const PLACEMENT: ItemSpec<'placement'> = {
  words: { one: 'placement', many: 'placements' },
  traits: { ...STANDING, pieces: true },
  optional: { group: true, values: true },
  place: TURN_PLACE,
  name: ({ piece }, names) => names.piece(piece),
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.piece === b.piece,
  ids: (fields, each) => overIds(fields, each, IDS),
};
