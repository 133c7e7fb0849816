import { overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { overChangedIds } from './changed-ids';

export const PATCH: ItemSpec<'patch'> = {
  words: { one: 'local change', many: 'local changes' },
  traits: { local: false, assembled: false, linked: false, selected: false, copied: false, thing: false, named: false },
  optional: {},
  place: null,
  name: () => '',
  group: () => null,
  alike: () => true,
  ids: (fields, each, all) => {
    const own = overIds(fields, each, { level: { to: 'level', isStrict: true } });
    const { kind, target, change } = own;
    if (kind === undefined || own.fields === undefined) return own;
    const led =
      change === 'added' || target === undefined
        ? target
        : each(target, { to: kind, field: 'target', isStrict: false });
    const changed = overChangedIds({ ...own, kind, fields: own.fields }, each, all);
    return led === target ? (changed.fields === own.fields ? own : changed) : { ...changed, target: led };
  },
};
