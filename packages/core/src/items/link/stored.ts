import { boolean, string } from 'yup';
import { LINK_EVENTS } from '../../model/link';
import { finite, id, values } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_LINK: StoredSpec<'link'> = {
  fields: () => ({
    id: id(),
    emitter: id(),
    event: string().required().oneOf(LINK_EVENTS),
    who: string().defined().max(200),
    once: boolean().required(),
    delaySeconds: finite(0, 1e6),
    action: string().required().min(1).max(200),
    target: id(),
    arguments: values,
  }),
};
