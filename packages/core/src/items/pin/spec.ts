import type { Pin } from '../../model/pin';
import { idUses, overIds } from '../ids';
import type { ItemSpec } from '../item-spec';
import { NOWHERE, UNPLACED } from '../traits';

const IDS = idUses<Pin>({ recipe: { to: 'recipe' } });

export const PIN: ItemSpec<'pin'> = {
  words: { one: 'pin', many: 'pins' },
  traits: UNPLACED,
  optional: {},
  ...NOWHERE,
  ids: (fields, each) => overIds(fields, each, IDS),
};
