import type { Link } from '../../model/link';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { NOWHERE, STANDING } from '../traits';

const IDS = idUses<Link>({ emitter: { to: 'item' }, target: { to: 'item' } });

export const LINK: ItemSpec<'link'> = {
  words: { one: 'link', many: 'links' },
  traits: { ...STANDING, linked: false },
  optional: { order: true },
  ...NOWHERE,
  ids: (fields, each) => overIds(fields, each, IDS),
};
