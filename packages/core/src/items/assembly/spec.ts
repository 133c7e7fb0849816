import type { AssemblyUse } from '../../model/items';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { YAW_PLACE } from '../place';
import { overChangedIds } from '../patch/changed-ids';
import { STANDING } from '../traits';

const IDS = idUses<AssemblyUse>({ group: { to: 'group' }, assembly: { to: 'stratum', isStrict: true } });

export const ASSEMBLY: ItemSpec<'assembly'> = {
  words: { one: 'assembly', many: 'assemblies' },
  traits: { ...STANDING, pieces: true },
  optional: { group: true, patches: true },
  place: YAW_PLACE,
  name: () => '',
  group: ({ group }) => group ?? null,
  alike: () => true,
  ids: (fields, each, all) => {
    const own = overIds(fields, each, IDS);
    if (!own.patches) return own;
    const entries = Object.entries(own.patches).map(([target, patch]) => {
      // Things of assemblies come and go without their uses being asked: what a use changes of them may be left loose.
      const changed = overChangedIds(
        patch,
        (id, use) => each(id, { ...use, field: `patches.${target}.${use.field}`, isStrict: false }),
        all,
      );
      return [target, changed, changed === patch] as const;
    });
    if (entries.every(([, , isSame]) => isSame)) return own;
    return { ...own, patches: Object.fromEntries(entries.map(([target, changed]) => [target, changed])) };
  },
};
