import type { Patch } from '../../model/items';
import type { EachId } from '../ids';
import type { ItemSpecs } from '../item-spec';

/** Goes over the ids in what a local change makes of a thing. */
export function overChangedIds<P extends Pick<Patch, 'kind' | 'fields'>>(patch: P, each: EachId, all: ItemSpecs): P {
  const walk = all[patch.kind].ids as (fields: object, each: EachId, all: ItemSpecs) => object;
  const fields = walk(patch.fields, (id, use) => each(id, { ...use, field: `fields.${use.field}` }), all);
  return fields === patch.fields ? patch : { ...patch, fields };
}
