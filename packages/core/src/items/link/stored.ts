import { LINK_EVENTS, type Link } from '../../model/link';
import { compareOrdered } from '../../model/ordered';
import { text, oneOf, finite, flag, later } from '../../fields/field';
import { id, order, values } from '../../fields/known-fields';
import { pickedForm } from '../packed-form';
import type { StoredSpec } from '../stored-spec';

export const STORED_LINK: StoredSpec<'link'> = {
  packed: pickedForm<Link>(
    'links',
    ['id', 'emitter', 'event', 'who', 'once', 'delaySeconds', 'action', 'target', 'arguments'],
    compareOrdered,
  ),
  fields: () => ({
    id: id(),
    emitter: id(),
    event: oneOf(LINK_EVENTS),
    who: text({ max: 200 }),
    once: flag(),
    delaySeconds: finite(0, 1e6),
    action: text({ min: 1, max: 200 }),
    target: id(),
    arguments: values(),
    order: later(order()),
  }),
};
