import { CoreError } from '../errors';
import { compareOrdered } from '../model/ordered';
import type { RecordTables } from '../model/records';
import type { Target } from '../model/target';

/** The target of a collection that has none of its own: plain glTF 2.0 and JSON, metres, Y up. */
export const PLAIN_TARGET: Target = {
  id: 'plain-gltf',
  name: 'Plain glTF',
  order: 'a',
  folder: 'build',
  meshFiles: 'perPiece',
  withAllPurposes: false,
  rules: {},
  counts: {},
};

/** The targets of a collection in their order; the plain one where it has none of its own. */
export function targetsOf({ target }: Pick<RecordTables, 'target'>): readonly Target[] {
  const own = Object.values(target).sort(compareOrdered);
  return own.length > 0 ? own : [PLAIN_TARGET];
}

/**
 * The target that is meant.
 * @param wanted its id, or its name in letters of any case; undefined for the first
 * @throws CoreError 'TARGET_UNKNOWN' naming those that there are
 */
export function targetOf(tables: Pick<RecordTables, 'target'>, wanted?: string): Target {
  const targets = targetsOf(tables);
  if (wanted === undefined) return targets[0];
  const named = (target: Target): boolean => target.name.toLowerCase() === wanted.toLowerCase();
  const found = targets.find(({ id }) => id === wanted) ?? targets.find(named);
  if (found) return found;
  throw new CoreError(
    'TARGET_UNKNOWN',
    `pack: there is no target ${wanted}; there are: ${targets.map(({ name }) => name).join(', ')}`,
    { target: wanted },
  );
}
