import { PATCH_CHANGES, patchId } from '../../model/patch';
import { holdsPatch } from './holds-patch';
import { oneOf } from '../../fields/field';
import { id, patchIdText, jsonTable } from '../../fields/known-fields';
import type { StoredSpec } from '../stored-spec';

export const STORED_PATCH: StoredSpec<'patch'> = {
  packed: null,
  fields: (all) => ({
    id: patchIdText(),
    level: id(),
    kind: oneOf(all.local),
    target: id(),
    change: oneOf(PATCH_CHANGES),
    fields: jsonTable(),
    was: jsonTable(),
  }),
  rules: (all) => [
    {
      name: 'patch-id',
      message: 'a local change must be named after its object and its level',
      holds: ({ id: own, level, target }) => own === patchId(level, target),
    },
    {
      name: 'patch-fields',
      message: 'what a local change sets must be allowed for the object itself',
      holds: (patch) => holdsPatch(patch, all),
    },
  ],
};
