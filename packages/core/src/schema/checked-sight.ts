import { CoreError } from '../errors';
import { SIGHT_VERSION } from '../sight/sight-input';
import type { SightResult } from '../sight/sight-result';

const MOST_POCKETS = 2000000;

/**
 * A sight bake as uploaded, checked for form: numbers finite, references inside their lists, sets ascending and mutual.
 * @throws CoreError 'BAKE_INVALID' naming the place
 */
export function checkedSight(value: unknown): SightResult {
  const fail = (rule: string): never => {
    throw new CoreError('BAKE_INVALID', `bake: ${rule}`);
  };
  const isTable = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);
  const numbers = (v: unknown, path: string, length?: number): void => {
    if (!Array.isArray(v) || (length !== undefined && v.length !== length) || !v.every((n) => typeof n === 'number' && Number.isFinite(n))) {
      fail(`${path} must be ${length === undefined ? 'a list of' : length} finite numbers`);
    }
  };
  if (!isTable(value)) fail('must be a table');
  const { version, pockets, openings, visible, findings, figures, closed } = value as Record<string, unknown>;
  if (version !== SIGHT_VERSION) fail(`version must be ${SIGHT_VERSION}, is ${String(version)}`);
  if (!Array.isArray(pockets) || !Array.isArray(openings) || !Array.isArray(visible) || !Array.isArray(findings) || !isTable(figures) || typeof closed !== 'boolean') {
    fail('needs pockets, openings, visible, findings, figures and closed');
  }
  const count = (pockets as unknown[]).length;
  if (count > MOST_POCKETS || (visible as unknown[]).length !== count) fail(`${count} pockets need as many visible sets, there are ${(visible as unknown[]).length}`);
  (pockets as unknown[]).forEach((pocket, i) => {
    if (!isTable(pocket) || typeof pocket['key'] !== 'string' || typeof pocket['reached'] !== 'boolean') fail(`pockets[${i}] needs key and reached`);
    const { planes, faces, bounds } = pocket as { planes: unknown; faces: unknown; bounds: unknown };
    if (!Array.isArray(planes) || !Array.isArray(faces) || !isTable(bounds)) fail(`pockets[${i}] needs planes, faces and bounds`);
    (planes as unknown[]).forEach((plane, k) => numbers(plane, `pockets[${i}].planes[${k}]`, 4));
    (faces as unknown[]).forEach((face, k) => numbers(face, `pockets[${i}].faces[${k}]`));
    numbers((bounds as Record<string, unknown>)['min'], `pockets[${i}].bounds.min`, 3);
    numbers((bounds as Record<string, unknown>)['max'], `pockets[${i}].bounds.max`, 3);
  });
  const sets = (visible as unknown[]).map((list, i) => {
    numbers(list, `visible[${i}]`);
    const entries = list as number[];
    entries.forEach((entry, k) => {
      if (!Number.isInteger(entry) || entry < 0 || entry >= count || (k > 0 && entry <= entries[k - 1]))
        fail(`visible[${i}][${k}] is ${entry}, must be a pocket's number above the one before`);
    });
    return new Set(entries);
  });
  sets.forEach((set, a) => {
    for (const b of set) if (!sets[b].has(a)) fail(`pocket ${a} sees ${b} but not the other way round`);
  });
  (openings as unknown[]).forEach((opening, i) => {
    if (!isTable(opening)) fail(`openings[${i}] must be a table`);
    const { pockets: pair, polygon } = opening as Record<string, unknown>;
    numbers(pair, `openings[${i}].pockets`, 2);
    numbers(polygon, `openings[${i}].polygon`);
    for (const pocket of pair as number[]) if (!Number.isInteger(pocket) || pocket < 0 || pocket >= count) fail(`openings[${i}] joins pocket ${pocket} of ${count}`);
  });
  return value as unknown as SightResult;
}
