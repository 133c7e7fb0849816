import { GROUP_COLOURS, type Group, type SetAside } from '../../model/group';
import { text, oneOf, flag, shape, orNull } from '../../fields/field';
import { id, name, day } from '../../fields/known-fields';
import { pickedForm } from '../packed-form';
import type { StoredSpec } from '../stored-spec';

export const STORED_GROUP: StoredSpec<'group'> = {
  packed: pickedForm<Group>('groups', ['id', 'name', 'parent', 'category', 'switchedOff']),
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
