import type { TargetRuleId } from '../../model/target-rules';
import { GROUPED, GROUPS } from './groups';
import { LEVEL_KEYS } from './level-keys';
import { NODE_TRANSFORMS, TILING } from './nodes';
import { PATH_KNOTS, PATH_SPACING } from './paths';
import { PIECE_MATERIALS, PIECE_SIZE, PIECE_TRIANGLES } from './piece-limits';
import { PIECE_NAMES } from './piece-names';
import { PLACEMENT_SCALE } from './placement-scale';
import type { PackRule } from './rule';
import { EXTENSIONS, TEXTURES, TEXTURE_SIZE } from './textures';

/** How each rule of a target is checked, in the order of its findings. */
export const PACK_RULES: Readonly<Record<TargetRuleId, PackRule>> = {
  levelKeys: LEVEL_KEYS,
  placementScale: PLACEMENT_SCALE,
  pathSpacing: PATH_SPACING,
  pathKnots: PATH_KNOTS,
  groups: GROUPS,
  grouped: GROUPED,
  pieceNames: PIECE_NAMES,
  nodeTransforms: NODE_TRANSFORMS,
  pieceSize: PIECE_SIZE,
  pieceTriangles: PIECE_TRIANGLES,
  pieceMaterials: PIECE_MATERIALS,
  tiling: TILING,
  textures: TEXTURES,
  textureSize: TEXTURE_SIZE,
  extensions: EXTENSIONS,
};
