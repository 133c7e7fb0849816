import type { Patch } from '../../model/items';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { overChangedIds } from './changed-ids';
import { NOWHERE, UNPLACED } from '../traits';

const IDS = idUses<Patch>({ level: { to: 'level', isStrict: true } });

export const PATCH: ItemSpec<'patch'> = {
  words: { one: 'local change', many: 'local changes' },
  traits: { ...UNPLACED, copied: false, thing: false, pieces: true },
  optional: {},
  isLaidOver: true,
  ...NOWHERE,
  ids: (fields, each, all) => {
    const own = overIds(fields, each, IDS);
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
