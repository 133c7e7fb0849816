import { mixed } from 'yup';
import { PATCH_CHANGES } from '../../model/patch';
import type { Patch } from '../../model/items';
import { finite, groupOf, id, vector } from '../../fields/schema-parts';
import { holdsPatch } from '../patch/holds-patch';
import type { ItemSchemas, StoredSpec } from '../stored-spec';

const TARGET_ID = id();

const USE_PATCH_FIELDS = ['kind', 'change', 'fields', 'was'];

function isUsePatchTable(table: unknown, all: ItemSchemas): boolean {
  if (table === null || table === undefined) return true;
  if (typeof table !== 'object' || Array.isArray(table)) return false;
  return Object.entries(table).every(([target, one]) => {
    const patch = one as Patch | null;
    const isWhole =
      typeof patch === 'object' &&
      patch !== null &&
      USE_PATCH_FIELDS.every((field) => Object.hasOwn(patch, field)) &&
      Object.keys(patch).length === USE_PATCH_FIELDS.length;
    return (
      TARGET_ID.isValidSync(target) &&
      isWhole &&
      PATCH_CHANGES.includes(patch.change) &&
      holdsPatch({ ...patch, target }, all)
    );
  });
}

export const STORED_ASSEMBLY: StoredSpec<'assembly'> = {
  fields: (all) => ({
    id: id(),
    assembly: id(),
    position: vector(),
    turn: finite(-36000, 36000),
    patches: mixed<Record<string, unknown>>()
      .nullable()
      .optional()
      .default(undefined)
      .meta({ jsonSchema: { type: ['object', 'null'] } })
      .test('use-patches', 'what a use has otherwise must be as the thing itself could be', (table) =>
        isUsePatchTable(table, all),
      ),
    group: groupOf(),
  }),
};
