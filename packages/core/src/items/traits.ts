import type { ItemTraits } from './item-spec';

/** What stands in the level: each kind says beside it what it has otherwise. */
export const STANDING: ItemTraits = {
  local: true,
  assembled: true,
  linked: true,
  selected: true,
  copied: true,
  thing: true,
  pieces: false,
  named: false,
  many: false,
};

/** What is kept in a stratum and is nowhere in the level. */
export const UNPLACED: ItemTraits = {
  local: false,
  assembled: false,
  linked: false,
  selected: false,
  copied: true,
  thing: true,
  pieces: false,
  named: false,
  many: false,
};

/** What is true of kinds that are nowhere and that nobody names. */
export const NOWHERE = { place: null, name: (): string => '', group: (): null => null, alike: (): boolean => true };
