import { GROUP_COLOURS, type SetAside } from '../../model/group';
import { text, oneOf, flag, shape, orNull } from '../../fields/field';
import { id, name, day } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_GROUP: StoredSpec<'group'> = {
  packed: {
    list: 'groups',
    of: ({ id, name, parent, category, switchedOff }) => ({ id, name, parent, category, switchedOff }),
    told: ({ id: own, name, parent, category, switchedOff }) => ({ id: own, name, parent, category, switchedOff }),
  },
  fields: () => ({
    id: id(),
    name: name(),
    parent: orNull(text({ max: 80 })),
    category: text({ max: 200 }),
    colour: oneOf(GROUP_COLOURS),
    switchedOff: flag(),
    guard: text({ max: 2000 }),
    aside: orNull(shape<SetAside>({ reason: text({ min: 1, max: 2000 }), since: day() })),
  }),
};
