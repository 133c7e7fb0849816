import type { Stratum } from '../../model/stratum';
import { idUses, overIds } from '../../items/ids';
import { overList } from '../named';
import type { RecordSpec } from '../record-spec';

const IDS = idUses<Stratum>({ owner: { to: 'level', isStrict: true }, kit: { to: 'kit', isStrict: true } });

export const STRATUM: RecordSpec<'stratum'> = {
  words: { one: 'stratum', many: 'strata' },
  table: null,
  pointsAt: ['level', 'kit', 'stratum'],
  ownedBy: 'owner',
  ids: (record, each) => {
    const own = overIds(record, each, IDS);
    if (!own.assemblies) return own;
    const assemblies = overList(own.assemblies, each, { to: 'stratum', field: 'assemblies', isStrict: true });
    return assemblies === own.assemblies ? own : { ...own, assemblies };
  },
  asUser: ({ name }, { field }) =>
    field === 'assemblies'
      ? `${name}, in which it stands or once stood`
      : `the ${field === 'kit' ? 'assembly' : 'stratum'} ${name}`,
};
