import { RECIPE_KINDS } from '../../model/recipe';
import { text, oneOf, finite, whole, flag } from '../../fields/field';
import { id, name, vector } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_RECIPE: StoredSpec<'recipe'> = {
  fields: () => ({
    id: id(),
    name: name(),
    kind: oneOf(RECIPE_KINDS),
    position: vector(),
    columns: whole(3, 2000),
    rows: whole(3, 2000),
    squareMetres: finite(0.25, 100),
    heightMetres: finite(0.5, 1000),
    openShare: finite(0.001, 1),
    birthChance: finite(0, 1),
    mostWalkers: whole(1, 1000),
    border: whole(1, 100),
    stepLimit: whole(1, 1e9),
    seed: text({ min: 1, max: 100 }),
    material: name(),
    hasMarkers: flag(),
  }),
};
