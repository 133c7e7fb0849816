import type { Marker } from '../../model/marker';
import { wholeTurn } from '../../numeric/micro';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { YAW_PLACE } from '../place';
import { STANDING } from '../traits';

const IDS = idUses<Marker>({ group: { to: 'group' }, entry: { to: 'entry' } });

export const MARKER: ItemSpec<'marker'> = {
  words: { one: 'marker', many: 'markers' },
  traits: STANDING,
  optional: { group: true, entry: true, values: true },
  place: { ...YAW_PLACE, varied: ({ turn }, degrees) => ({ turn: wholeTurn(turn + degrees) }) },
  name: ({ kind }) => kind,
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.kind === b.kind,
  ids: (fields, each) => overIds(fields, each, IDS),
};
