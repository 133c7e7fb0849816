import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { YAW_PLACE } from '../place';

export const MARKER: ItemSpec<'marker'> = {
  words: { one: 'marker', many: 'markers' },
  traits: { local: true, assembled: true, linked: true, selected: true, copied: true, thing: true, named: false },
  optional: { group: true, entry: true, values: true },
  place: YAW_PLACE,
  name: ({ kind }) => kind,
  group: ({ group }) => group ?? null,
  alike: (a, b) => a.kind === b.kind,
  ids: (fields, each) => overIds(fields, each, { group: { to: 'group' }, entry: { to: 'entry' } }),
};
