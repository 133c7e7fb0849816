import { counted } from '../../counted';
import type { Operation } from '../../document/operation';
import { CoreError, errorText } from '../../errors';
import { plainJson } from '../../json/plain-json';
import { withKnotIds, type NewKnot } from '../../layout/paths/knot-ids';
import { lengthOfPiece, parameterAtLength, pathPieces, pointOfPiece } from '../../layout/paths/path-curve';
import { resamplePath } from '../../layout/paths/path-edits';
import { MAX_PATH_KNOTS } from '../../fields/known-fields';
import type { Knot, Path } from '../../model/level-path';
import type { StratumContent } from '../../model/items';
import { toMicro, vectorToMicro } from '../../numeric/micro';
import { ruleSetting } from '../target-settings';
import { isSpaced, widestGap } from '../rules/paths';
import type { FixLine, FixPlan, FixScene, PackFix } from './fix';

/** What a target asks of paths; Infinity where it does not ask. */
interface PathLimits {
  readonly spacingMetres: number;
  readonly knots: number;
}

/** A curve through knots so far apart is a little longer: the spacing is made so much smaller, so often. */
const NARROWER = 0.99;
const MAX_NARROWINGS = 30;

/** Gives paths the spacing and the number of knots that the target takes. Straight ones keep their shape where more knots are all they need. */
export const RESAMPLE_PATHS: PackFix = {
  codes: ['PACK_PATH_SPACING', 'PACK_PATH_KNOTS'],
  name: 'Resample paths',
  plan: ({ target, strata, records }: FixScene): FixPlan => {
    const spacing = ruleSetting(target, 'pathSpacing');
    const most = ruleSetting(target, 'pathKnots');
    const limits = {
      spacingMetres: spacing.isOn ? spacing.max : Infinity,
      knots: most.isOn ? most.max : MAX_PATH_KNOTS,
    };
    const lines: FixLine[] = [];
    const left: string[] = [];
    const operations: Operation[] = [];
    for (const [stratum, content] of strata) {
      const of = records.stratum[stratum]?.name ?? stratum;
      for (const path of content.path) {
        const gap = widestGap(path);
        if (isSpaced(gap, limits.spacingMetres) && path.knots.length <= limits.knots) continue;
        const what = called(path, of);
        try {
          const knots = fittingKnots(path, limits);
          lines.push({
            what,
            before: told(path.knots, gap),
            after: told(knots, widestGap({ ...path, knots })),
          });
          operations.push({
            document: stratum,
            kind: 'path',
            id: path.id,
            field: 'knots',
            before: plainJson(path.knots),
            after: plainJson(knots),
          });
        } catch (error) {
          if (!(error instanceof CoreError)) throw error;
          left.push(`${what}: ${errorText(error)}`);
        }
      }
      left.push(...changedPaths(content, of));
    }
    return { lines, left, operations, renames: [] };
  },
};

/** Paths that single levels have in another shape: those are not touched. */
function changedPaths(content: StratumContent, of: string): string[] {
  const paths = new Map(content.path.map((path) => [path.id, path]));
  return content.patch.flatMap(({ target, fields }) => {
    const path = paths.get(target);
    return path && Object.hasOwn(fields, 'knots')
      ? [`${called(path, of)}: a level has another shape of it as a local change`]
      : [];
  });
}

/** 'Rail (Dressing)'. @param of name of its stratum */
function called({ name }: Path, of: string): string {
  return `${name === '' ? 'Path' : name} (${of})`;
}

function told(knots: readonly Knot[], gap: number): string {
  return `${counted(knots.length, 'knot')}, gaps up to ${Number(gap.toPrecision(4))} m`;
}

/**
 * Knots that are so near each other and so few as a target asks.
 * @throws CoreError 'PATH_FIT' where it takes fewer than that spacing needs
 */
export function fittingKnots(path: Path, { spacingMetres, knots: most }: PathLimits): readonly Knot[] {
  const total = pathPieces(path).reduce((sum, piece) => sum + lengthOfPiece(piece), 0);
  const fits = (knots: readonly Knot[]): boolean =>
    knots.length <= most && isSpaced(widestGap({ ...path, knots }), spacingMetres);
  if (path.form === 'polyline') {
    const denser = knotsBetween(path, spacingMetres, most);
    if (denser && fits(denser)) return denser;
  }
  const ends = path.closed ? 0 : 1;
  const knotsAt = (spacing: number): number => Math.ceil(total / spacing - 1e-9) + ends;
  // Never fewer than there were, unless those are too many: each says something of its shape.
  const first = Math.min(most, Math.max(path.knots.length, knotsAt(spacingMetres)));
  for (let i = 0, spacing = total / (first - ends); i < MAX_NARROWINGS && knotsAt(spacing) <= most; i++) {
    const knots = resamplePath(path, spacing, MAX_PATH_KNOTS);
    if (fits(knots)) return knots;
    spacing *= NARROWER;
  }
  throw new CoreError(
    'PATH_FIT',
    `resample: ${total.toFixed(2)} m with knots at most ${spacingMetres} m apart needs more than ${counted(most, 'knot')}, which is all that the target takes`,
    { path: path.id },
  );
}

/** The same straight path with knots between those that are too far apart; undefined where that makes too many. */
function knotsBetween(path: Path, spacingMetres: number, most: number): readonly Knot[] | undefined {
  const { knots, closed } = path;
  const all: NewKnot[] = [];
  for (const [i, knot] of knots.entries()) {
    all.push(knot);
    if (i === knots.length - 1 && !closed) break;
    const next = knots[(i + 1) % knots.length];
    const [piece] = pathPieces({ form: path.form, closed: false, knots: [knot, next] });
    if (!piece) continue;
    const length = lengthOfPiece(piece);
    const parts = Math.max(1, Math.ceil(length / spacingMetres - 1e-9));
    if (all.length + parts > most + 1) return undefined;
    for (let n = 1; n < parts; n++) {
      const t = parameterAtLength(piece, (length * n) / parts, length);
      all.push({
        position: vectorToMicro(pointOfPiece(piece, t)),
        widthMetres: toMicro(knot.widthMetres + (next.widthMetres - knot.widthMetres) * t),
        tags: [],
        handle: null,
      });
    }
  }
  return withKnotIds(all);
}
