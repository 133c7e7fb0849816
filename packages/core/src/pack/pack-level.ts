import { strToU8 } from 'fflate';
import { cutLevel } from '../cells/cut-level';
import type { RunContext } from '../context/run-context';
import { CoreError } from '../errors';
import { canonicalJson } from '../json/canonical-json';
import { writeGlb } from '../formats/glb/write-glb';
import type { LevelContent } from '../layout/level-content';
import { packedGroup } from '../items/packed-form';
import { placedPieces, placementsOf } from '../layout/level-placements';
import { columnsFile } from '../layout/placed-columns/columns-file';
import { bitmapOfMask } from '../layout/masks/mask-bitmap';
import { pictureOfMask } from '../layout/masks/mask-picture';
import { heldAt } from '../model/by-key';
import type { CellGrid } from '../model/cell-grid';
import type { Json } from '../model/json';
import type { Mask } from '../model/mask';
import { withSections, type MadeSection } from '../sections/with-sections';
import type { SightResult } from '../sight/sight-result';
import { blockRanges } from './block-ranges';
import { meshOfBlocks } from './block-meshes';
import { cellsFile } from '../cells/cells-file';
import { chunkColumns } from './chunk-columns';
import { chunkName, chunksOf } from './chunks';
import { describeLevel, levelFolder, sightPath, type DescribedLevel } from './level-description';
import type { PackFile } from './pack-kit';
import { placedJson } from '../layout/placed-json';
import { sightFile } from '../sight/sight-file';

export interface PackLevelInput extends Pick<
  DescribedLevel,
  'content' | 'pieces' | 'kits' | 'kitLoads' | 'placed' | 'number' | 'sets'
> {
  /** How it is cut; null packs it as one. */
  readonly grid: CellGrid | null;
  /** Null leaves its file out: the one that stands is kept until the level is baked. */
  readonly sight: SightResult | null;
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
  const { pieces, kits, kitLoads, placed, grid } = input;
  const cut = grid ? cutLevel({ content, pieces, kits, kitLoads, grid }, context) : undefined;
  checkPieces(content, input);
  const files: PackFile[] = [];
  const chunks: DescribedLevel['chunks'][number][] = [];
  for (const chunk of chunksOf(content, cut)) {
    context.checkCancelled();
    const name = chunkName(chunk);
    const blocks = blockRanges(chunk.blocks);
    const meshes = meshOfBlocks(name, blocks);
    if (meshes) files.push({ path: `${folder}/${name}.glb`, bytes: await writeGlb(meshes) });
    const columns = chunkColumns(chunk, `${folder}/${name}.bin`, pieces, placed);
    if (columns) files.push({ path: columns.path, bytes: columnsFile(columns.builder, columns.layout) });
    chunks.push({ chunk, blocks, columns });
  }
  context.progress(0.6, `${level.name}: what is seen`);
  if (input.sight) {
    const strata = content.strata.map((one) => ({ blocks: one.content.block, placements: placementsOf(one) }));
    const seen = sightFile(strata, input.sight, new Map(Object.entries(pieces)));
    files.push({ path: sightPath(content), bytes: seen });
  }
  if (grid && cut) files.push({ path: `${folder}/cells.json`, bytes: cellsFile(grid, cut, content) });
  const masks = masksOf(content);
  files.push(...masks.map(({ file }) => file));
  const description = describeLevel(
    { ...input, content, chunks, masks: masks.map(({ described }) => described), hasCells: grid !== null },
    placedJson,
  );
  files.push({ path: `${folder}.json`, bytes: strToU8(canonicalJson(description)) });
  return files;
}

/** @throws CoreError 'CELL_PIECE_MISSING' naming the placement whose piece is not there, 'CELL_KIT_MISSING' */
function checkPieces({ strata }: LevelContent, { pieces, kits, kitLoads }: PackLevelInput): void {
  for (const piece of placedPieces(strata)) {
    const kit = Object.hasOwn(pieces, piece) ? pieces[piece].kit : undefined;
    if (kit !== undefined && !Object.hasOwn(kitLoads, kit))
      throw new CoreError(
        'CELL_KIT_MISSING',
        `pack: the files of this kit are not known: ${heldAt(kits, kit)?.name ?? kit}`,
        { kit },
      );
  }
  for (const one of strata) {
    const { ids, pieces: placed } = placementsOf(one);
    const missing = placed.findIndex((piece) => !Object.hasOwn(pieces, piece));
    if (missing >= 0)
      throw new CoreError(
        'CELL_PIECE_MISSING',
        `pack: the placement ${ids[missing]} uses the piece ${placed[missing]}, which does not exist`,
      );
  }
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
