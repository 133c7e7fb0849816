import type { Volume } from '../../model/volume';
import { toMicro } from '../../numeric/micro';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { TURN_PLACE, variedTurn } from '../place';
import { STANDING } from '../traits';

const IDS = idUses<Volume>({ group: { to: 'group' }, kind: { to: 'entry' } });

export const VOLUME: ItemSpec<'volume'> = {
  words: { one: 'volume', many: 'volumes' },
  traits: { ...STANDING, named: true },
  optional: { group: true, values: true },
  place: {
    ...TURN_PLACE,
    varied: variedTurn,
    mirrored: (volume, mirroring) => {
      const { shape } = volume;
      const changed = TURN_PLACE.mirrored(volume, mirroring);
      if (shape.form !== 'prism') return changed;
      return { ...changed, shape: { ...shape, outline: shape.outline.map(([x, z]) => [toMicro(-x), z] as const) } };
    },
  },
  isEntered: true,
  name: ({ name }) => name,
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.kind === b.kind,
  ids: (fields, each) => overIds(fields, each, IDS),
};
