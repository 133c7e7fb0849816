import { counted } from '../counted';
import type { RunContext } from '../context/run-context';
import { finding, type Finding } from '../findings';
import { PLACEMENT_NUMBERS, threeAt } from '../items/placement/columns';
import { laidContent } from '../layout/level-content';
import { placementsOf } from '../layout/level-placements';
import type { CollectionContent } from '../model/collection-content';
import { collisionNode } from '../detail/collision';
import { stepNodeName, type Piece } from '../model/kit';
import type { StratumContent } from '../model/items';
import type { Level } from '../model/level';
import { keyFromName } from '../fields/key-text';
import { levelsInOrder } from '../sets/order';
import type { KitInspection } from './inspect-kit';
import { openReferences } from './open-references';
import { PLAIN_TARGET, type PackTarget } from './pack-target';

/** What is packed. */
export interface PackChoice {
  /** Whether trial and tool levels go along. */
  readonly withAllPurposes: boolean;
  /** Keys of levels that are left out. */
  readonly without?: readonly string[];
}

/** A choice as the query of an address; '' where nothing is chosen. */
export function packQuery({ withAllPurposes, without = [] }: PackChoice): string {
  return [
    ...(withAllPurposes ? ['all=yes'] : []),
    ...(without.length > 0 ? [`without=${encodeURIComponent(without.join(','))}`] : []),
  ].join('&');
}

export interface CheckPackInput {
  readonly content: Pick<CollectionContent, 'records' | 'strata'>;
  /** By kit id. */
  readonly inspections: Readonly<Record<string, KitInspection>>;
  readonly choice: PackChoice;
}

/** Levels that are packed, in order of play; those without a stratum have nothing to pack. */
export function packedLevels(
  records: CollectionContent['records'],
  { withAllPurposes, without = [] }: PackChoice,
): Level[] {
  const left = new Set(without);
  return levelsInOrder(records).filter(
    ({ key, purpose, strata }) => strata.length > 0 && (withAllPurposes || purpose === 'play') && !left.has(key),
  );
}

/** Holds a collection against the rules of the target. @throws CoreError 'CANCELLED' */
export function checkPack(
  { content, inspections, choice }: CheckPackInput,
  context: RunContext,
  target: PackTarget = PLAIN_TARGET,
): Finding[] {
  const { records, strata } = content;
  const levels = packedLevels(records, choice);
  const usedPieces = new Set<string>();
  const findings: Finding[] = [...keyFindings(levels, target)];
  levels.forEach((level, i) => {
    context.checkCancelled();
    context.progress(i / levels.length, `checking ${level.name}`);
    let [blocks, placements, others] = [0, 0, 0];
    const packed: { stratum: string; content: StratumContent }[] = [];
    for (const { stratum } of level.strata) {
      const stored = strata.get(stratum);
      if (!stored) continue;
      const items = laidContent(stored, level.id, (id) => strata.get(id));
      packed.push({ stratum, content: items });
      blocks += items.block.length;
      others +=
        items.recipe.length + items.marker.length + items.volume.length + items.tileFloor.length + items.mask.length;
      const { count, ids, pieces, numbers } = placementsOf({ content: items });
      placements += count;
      for (let n = 0; n < count; n++) {
        usedPieces.add(pieces[n]);
        const at = n * PLACEMENT_NUMBERS;
        const off = numbers
          .subarray(at + 6, at + 9)
          .find((value) => Math.abs(value) < target.scale[0] || Math.abs(value) > target.scale[1]);
        if (off === undefined) continue;
        findings.push(
          finding({
            code: 'PACK_SCALE',
            desk: 'pack',
            severity: 'error',
            subject: ids[n],
            place: {
              level: level.id,
              stratum,
              item: ids[n],
              position: threeAt(numbers, at),
            },
            message: `A placement of ${records.piece[pieces[n]]?.name ?? pieces[n]} in ${level.name} is scaled by ${Math.abs(off)}; ${target.name} takes ${target.scale[0]} to ${target.scale[1]}`,
            why: 'So large or small a scale nearly always means that the piece was made in another unit.',
          }),
        );
      }
    }
    findings.push(...openReferences({ level, strata: packed }, records));
    if (blocks + placements + others === 0 && level.bounds === null) {
      findings.push(
        finding({
          code: 'PACK_EMPTY',
          desk: 'pack',
          severity: 'error',
          subject: level.id,
          place: { level: level.id },
          message: `Nothing is in ${level.name}`,
          why: 'There is nothing to pack. Add content in Layout, or remove its strata.',
        }),
      );
    }
    for (const [count, most, what] of [
      [blocks, target.mostBlocks, 'blocks'],
      [placements, target.mostPlacements, 'placements'],
    ] as const) {
      if (count > most) findings.push(countFinding(level, count, most, what, target));
    }
  });
  for (const id of [...usedPieces].sort())
    if (records.piece[id])
      findings.push(...pieceFindings(records.piece[id], inspections[records.piece[id].kit], target));
  for (const kit of [...new Set([...usedPieces].map((id) => records.piece[id]?.kit))].sort()) {
    if (kit !== undefined && inspections[kit])
      findings.push(...textureFindings(kit, records.kit[kit]?.name ?? kit, inspections[kit], target));
  }
  // A stratum that levels share would tell of each of its placements once a level.
  return [...new Map(findings.map((one) => [one.id, one])).values()];
}

function keyFindings(levels: readonly Level[], target: PackTarget): Finding[] {
  return levels
    .filter(({ key }) => key.length > target.mostNameLetters)
    .map(({ id, name, key }) =>
      finding({
        code: 'PACK_FILE_NAME',
        desk: 'pack',
        severity: 'error',
        subject: id,
        place: { level: id },
        message: `The key of ${name} has ${key.length} letters; ${target.name} takes file names of ${target.mostNameLetters}`,
        why: 'The pack could not be unpacked everywhere. Give the level a shorter key on the Sets desk.',
      }),
    );
}

function countFinding(level: Level, count: number, most: number, what: string, target: PackTarget): Finding {
  return finding({
    code: 'PACK_COUNT',
    desk: 'pack',
    severity: 'error',
    subject: `${level.id}.${what}`,
    place: { level: level.id },
    message: `${level.name} has ${count} ${what}; ${target.name} takes ${most}`,
    why: 'The game that loads this target has no room for more.',
  });
}

function pieceFindings(piece: Piece, inspection: KitInspection | undefined, target: PackTarget): Finding[] {
  const findings: Finding[] = [];
  const say = (code: string, message: string, why: string): void =>
    void findings.push(
      finding({ code, desk: 'pack', severity: 'error', subject: piece.id, place: { piece: piece.id }, message, why }),
    );
  const collision = piece.collision && collisionNode(piece.name, piece.collision.shape);
  const nodes = [...piece.steps.map((_step, i) => stepNodeName(piece.name, i)), ...(collision ? [collision] : [])];
  const lost = inspection && nodes.find((name) => !inspection.nodes.includes(name));
  if (lost !== undefined)
    say(
      'PACK_NODE_MISSING',
      `The kit’s GLB has no node ${lost} for ${piece.name}`,
      lost === collision
        ? 'Nothing would be stopped or carried by it in the game. Set its collision again on the Detail desk.'
        : 'The LOD would be missing in the game. Build the LODs again on the Detail desk.',
    );
  const moved = inspection && nodes.find((name) => inspection.movedNodes.includes(name));
  if (moved !== undefined) {
    say(
      'PACK_NODE_MOVED',
      `The node ${moved} of ${piece.name} has a transform in its kit’s GLB`,
      'Placements would be somewhere else in the game than here. Import the piece’s file again on the Detail desk.',
    );
  }
  const size = Math.max(...[0, 1, 2].map((k) => piece.bounds.max[k] - piece.bounds.min[k]));
  if (size < target.pieceMetres[0] || size > target.pieceMetres[1]) {
    say(
      'PACK_PIECE_SIZE',
      `${piece.name} is ${Number(size.toPrecision(3))} m long; ${target.name} takes ${target.pieceMetres[0]} to ${target.pieceMetres[1]} m`,
      'It was most likely made in another unit. Import its file again with the right unit.',
    );
  }
  const [full] = piece.steps;
  if (full.triangles > target.mostPieceTriangles)
    say(
      'PACK_PIECE_TRIANGLES',
      `${piece.name} has ${counted(full.triangles, 'triangle')}; ${target.name} takes ${target.mostPieceTriangles}`,
      'The game that loads this target has no room for more.',
    );
  if (full.materials > target.mostPieceMaterials)
    say(
      'PACK_PIECE_MATERIALS',
      `${piece.name} has ${full.materials} materials; ${target.name} takes ${target.mostPieceMaterials}`,
      'Every material is a draw call of its own.',
    );
  return findings;
}

function textureFindings(
  kit: string,
  name: string,
  { textures, missingTextures }: KitInspection,
  target: PackTarget,
): Finding[] {
  const parts = { desk: 'pack' as const, severity: 'error' as const, place: { kit } };
  return [
    ...missingTextures.map((texture) =>
      finding({
        ...parts,
        code: 'PACK_TEXTURE_MISSING',
        subject: `${kit}.${keyFromName(texture)}`,
        message: `The texture ${texture} of ${name} is not in its GLB`,
        why: 'Its pieces would be drawn without it. Import the pieces’ files again, with their pictures.',
      }),
    ),
    ...textures
      .filter(({ widthPixels, heightPixels }) => Math.max(widthPixels, heightPixels) > target.mostTexturePixels)
      .map((texture) =>
        finding({
          ...parts,
          code: 'PACK_TEXTURE_LARGE',
          subject: `${kit}.${keyFromName(texture.name)}`,
          message: `The texture ${texture.name} of ${name} is ${texture.widthPixels} by ${texture.heightPixels} pixels; ${target.name} takes ${target.mostTexturePixels}`,
          why: 'The game that loads this target could not hold it.',
        }),
      ),
  ];
}
