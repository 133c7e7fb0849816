import { turnQuaternion } from '../../geometry/turn-quaternion';
import { QUATERNION_SCHEMA, VECTOR_SCHEMA } from '../../json/schema-parts';
import { isJsonTable } from '../../model/json';
import { PATCH_CHANGES } from '../../model/patch';
import type { AssemblyUse } from '../../model/items';
import { holdsPatch } from '../patch/holds-patch';
import { told, later } from '../../fields/field';
import { id, vector, groupOf, yaw } from '../../fields/known-fields';
import type { ItemShapes, StoredSpec } from '../stored-spec';

const TARGET_ID = id();

const USE_PATCH_FIELDS = ['kind', 'change', 'fields', 'was'];

function isUsePatchTable(table: unknown, all: ItemShapes): boolean {
  if (!isJsonTable(table)) return false;
  return Object.entries(table).every(
    ([target, patch]) =>
      TARGET_ID.check(target) &&
      isJsonTable(patch) &&
      Object.keys(patch).length === USE_PATCH_FIELDS.length &&
      USE_PATCH_FIELDS.every((field) => Object.hasOwn(patch, field)) &&
      PATCH_CHANGES.some((change) => change === patch['change']) &&
      holdsPatch({ ...patch, target }, all),
  );
}

export const STORED_ASSEMBLY: StoredSpec<'assembly'> = {
  packed: {
    list: 'assemblies',
    of: ({ id: own, assembly, position, turn }) => ({
      id: own,
      assembly,
      translation: [...position],
      rotation: turnQuaternion([turn, 0, 0]),
    }),
    told: ({ id: own, assembly }) => ({
      id: own,
      assembly,
      translation: VECTOR_SCHEMA,
      rotation: QUATERNION_SCHEMA,
    }),
  },
  fields: (all) => ({
    id: id(),
    assembly: id(),
    position: vector(),
    turn: yaw(),
    patches: later(
      told<NonNullable<AssemblyUse['patches']>>(
        { type: ['object', 'null'] },
        {
          name: 'use-patches',
          message: 'what a use changes must be allowed for the object itself',
          holds: (table) => isUsePatchTable(table, all),
        },
      ),
    ),
    group: groupOf(),
  }),
};
