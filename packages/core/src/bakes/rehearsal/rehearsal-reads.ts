import { CoreError } from '../../errors';
import { contentOf, linkedContent } from '../../layout/links/linked-content';
import { placedPieces } from '../../layout/level-placements';
import { mapped } from '../../model/by-key';
import type { ItemKind } from '../../model/items';
import type { LevelScene } from '../bake-spec';
import type { RehearsalReads } from './make-rehearsal';

/** What is cut into cells. */
const CUT: readonly ItemKind[] = ['block', 'placement'];

/** What a rehearsal of a level reads. @throws CoreError 'REHEARSAL_MISSING' when it, its level's grid or its device is not there */
export function rehearsalReads(scene: LevelScene, subject: string): RehearsalReads {
  const { content, grid, placed: placedFiles, devices, pieces, kits, kitLoads } = scene;
  const rehearsal = scene.rehearsals.find(({ id }) => id === subject);
  const fault = rehearsalFault(scene, subject);
  if (fault) throw fault;
  if (!rehearsal || !grid) throw missing(subject, `walk ${subject}`);
  const rules = new Set((grid.volumeRules ?? []).map(({ volume }) => volume));
  // Links know what they lead to by its name and by whether it is switched off.
  const hasLinks = content.strata.some(({ content: items }) => items.link.length > 0);
  const placed = placedPieces(content.strata);
  const used = pick(pieces, placed);
  const usedKits = new Set(Object.values(used).map(({ kit }) => kit));
  return {
    level: {
      id: content.level.id,
      strata: hasLinks || rules.size > 0 ? content.level.strata : [],
    },
    strata: content.strata.map(({ stratum, content: items }) => ({
      stratum: stratum.id,
      content: {
        ...contentOf(items, CUT),
        ...(rules.size > 0 ? { volume: items.volume.filter(({ id }) => rules.has(id)), group: items.group } : {}),
        ...(hasLinks ? linkedContent(items) : {}),
      },
    })),
    pieces: used,
    kits: Object.fromEntries(Object.entries(pick(kits, usedKits)).map(([id, { name }]) => [id, { name }])),
    kitLoads: mapped(pick(kitLoads, usedKits), (load) =>
      load.pieces ? { ...load, pieces: pick(load.pieces, placed) } : load,
    ),
    grid,
    ...(placedFiles ? { placed: placedFiles } : {}),
    rehearsal,
    device: devices[rehearsal.device],
    floors: pick(scene.floors ?? {}, new Set(Object.keys(used))),
  };
}

/** What a rehearsal of a level cannot be made without; undefined where it is none of the level's. */
export function rehearsalFault({ rehearsals, grid, devices }: LevelScene, subject: string): CoreError | undefined {
  const rehearsal = rehearsals.find(({ id }) => id === subject);
  if (!rehearsal) return undefined;
  if (!grid) return missing(subject, `grid of cells for the level ${rehearsal.level}`);
  if (!Object.hasOwn(devices, rehearsal.device)) return missing(subject, `device ${rehearsal.device}`);
  return undefined;
}

function missing(rehearsal: string, what: string): CoreError {
  return new CoreError('REHEARSAL_MISSING', `rehearsal: there is no ${what}`, { rehearsal });
}

/** The entries of a table under some keys; what is not there is left out. */
function pick<T>(table: Readonly<Record<string, T>>, keys: ReadonlySet<string>): Record<string, T> {
  return Object.fromEntries([...keys].sort().flatMap((key) => (Object.hasOwn(table, key) ? [[key, table[key]]] : [])));
}
