import { string } from 'yup';
import { PATCH_CHANGES, patchId } from '../../model/patch';
import type { Patch } from '../../model/items';
import { id, jsonTable, patchIdText } from '../../fields/schema-parts';
import { holdsPatch } from './holds-patch';
import type { StoredSpec } from '../stored-spec';

export const STORED_PATCH: StoredSpec<'patch'> = {
  fields: (all) => ({
    id: patchIdText(),
    level: id(),
    kind: string().required().oneOf(all.local),
    target: id(),
    change: string().required().oneOf(PATCH_CHANGES),
    fields: jsonTable(),
    was: jsonTable(),
  }),
  rules: (schema, all) =>
    schema
      .test(
        'patch-id',
        'a patch must be named after its thing and its level',
        (patch) =>
          (patch as unknown as Patch).id ===
          patchId((patch as unknown as Patch).level, (patch as unknown as Patch).target),
      )
      .test('patch-fields', 'what a patch changes must be as the thing itself could be', (patch) =>
        holdsPatch(patch as unknown as Patch, all),
      ),
};
