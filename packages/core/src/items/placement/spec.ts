import type { Placement } from '../../model/placement';
import { toMicro } from '../../numeric/micro';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { TURN_PLACE, variedTurn } from '../place';
import { STANDING } from '../traits';

const IDS = idUses<Placement>({ group: { to: 'group' }, piece: { to: 'piece', isStrict: true } });

export const PLACEMENT: ItemSpec<'placement'> = {
  words: { one: 'placement', many: 'placements' },
  traits: { ...STANDING, pieces: true, many: true },
  targetMax: 200000,
  optional: { group: true, values: true },
  place: {
    ...TURN_PLACE,
    // Its own x axis is mirrored with the level: both together are the mirror image.
    mirrored: ({ position, turn, scale: [x, y, z] }, mirroring) => ({
      ...TURN_PLACE.mirrored({ position, turn }, mirroring),
      ...(mirroring.mirrorsPieces ? { scale: [-x, y, z] } : {}),
    }),
    varied: ({ turn, scale: [x, y, z] }, degrees, scale) => ({
      ...variedTurn({ turn }, degrees),
      scale: [toMicro(x * scale), toMicro(y * scale), toMicro(z * scale)],
    }),
  },
  name: ({ piece }, names) => names.piece(piece),
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.piece === b.piece,
  ids: (fields, each) => overIds(fields, each, IDS),
};
