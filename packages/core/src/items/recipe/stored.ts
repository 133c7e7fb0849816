import { boolean, string } from 'yup';
import { RECIPE_KINDS } from '../../model/recipe';
import { finite, id, name, vector, whole } from '../../fields/schema-parts';
import type { StoredSpec } from '../stored-spec';

export const STORED_RECIPE: StoredSpec<'recipe'> = {
  fields: () => ({
    id: id(),
    name: name(),
    kind: string().required().oneOf(RECIPE_KINDS),
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
    seed: string().required().min(1).max(100),
    material: name(),
    hasMarkers: boolean().required(),
  }),
};
