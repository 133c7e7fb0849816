import { strToU8 } from 'fflate';
import { cutLevel } from '../cells/cut-level';
import type { RunContext } from '../context/run-context';
import { canonicalJson } from '../json/canonical-json';
import { writeGlb } from '../formats/glb/write-glb';
import type { LevelContent } from '../layout/level-content';
import { packedGroup } from '../items/packed-form';
import { placementsOf } from '../layout/level-placements';
import { bitmapOfMask } from '../layout/masks/mask-bitmap';
import { pictureOfMask } from '../layout/masks/mask-picture';
import type { CellGrid } from '../model/cell-grid';
import type { Json } from '../model/json';
import type { Mask } from '../model/mask';
import { withSections, type MadeSection } from '../sections/with-sections';
import type { SightResult } from '../sight/sight-result';
import { meshOfBlocks } from './block-meshes';
import { cellsFile } from '../cells/cells-file';
import { chunkName, chunksOf, gridOf } from './chunks';
import { describeLevel, levelFolder, type DescribedLevel } from './level-description';
import type { PackFile } from './pack-kit';
import { placedJson } from '../layout/placed-json';
import { sightFile } from '../sight/sight-file';

export interface PackLevelInput extends Pick<
  DescribedLevel,
  'content' | 'pieces' | 'kits' | 'kitLoads' | 'number' | 'sets'
> {
  /** How it is cut; null packs it as one. */
  readonly grid: CellGrid | null;
  readonly sight: SightResult;
  readonly sections: readonly MadeSection[];
}

/**
 * The files of a level: what it is, its blocks as glTF a chunk, its placements, what is seen from where, and its cells.
 * Equal input gives equal bytes.
 * @throws CoreError 'CELL_PIECE_MISSING' naming the placement, 'BURROW_SIZE', 'CANCELLED'
 */
export async function packLevel(input: PackLevelInput, context: RunContext): Promise<PackFile[]> {
  const content = withSections(input.content, input.sections);
  const { level } = content;
  const folder = levelFolder(content);
  const cut = cutLevel(
    { content, pieces: input.pieces, kits: input.kits, kitLoads: input.kitLoads, grid: gridOf(level.id, input.grid) },
    context,
  );
  const files: PackFile[] = [];
  const chunks: DescribedLevel['chunks'][number][] = [];
  for (const chunk of chunksOf(content, cut, input.grid === null)) {
    context.checkCancelled();
    const name = chunkName(chunk);
    const meshes = meshOfBlocks(name, chunk.blocks);
    if (meshes) files.push({ path: `${folder}/${name}.glb`, bytes: await writeGlb(meshes) });
    chunks.push({ chunk, hasGeometry: meshes !== undefined });
  }
  context.progress(0.6, `${level.name}: what is seen`);
  const strata = content.strata.map((one) => ({ blocks: one.content.block, placements: placementsOf(one) }));
  const seen = sightFile(strata, input.sight, new Map(Object.entries(input.pieces)));
  files.push({ path: `${folder}/sight.json`, bytes: seen });
  if (input.grid) files.push({ path: `${folder}/cells.json`, bytes: cellsFile(input.grid, cut, content) });
  const masks = masksOf(content);
  files.push(...masks.map(({ file }) => file));
  const description = describeLevel(
    { ...input, content, chunks, masks: masks.map(({ described }) => described), hasCells: input.grid !== null },
    placedJson,
  );
  files.push({ path: `${folder}.json`, bytes: strToU8(canonicalJson(description)) });
  return files;
}

/** The masks of a level as pictures, white where they are open, with where each lies. */
export function masksOf(content: LevelContent): { readonly file: PackFile; readonly described: Json }[] {
  return content.strata
    .flatMap(({ content: items }) => items.mask)
    .map((mask, i) => packedMask(mask, `${levelFolder(content)}/mask-${i + 1}.png`));
}

function packedMask(mask: Mask, path: string): { readonly file: PackFile; readonly described: Json } {
  const { id, name, position, pixelsPerMetre, group } = mask;
  return {
    file: { path, bytes: pictureOfMask(bitmapOfMask(mask)) },
    described: { id, name, position: [...position], pixelsPerMetre, picture: path, ...packedGroup(group) },
  };
}
