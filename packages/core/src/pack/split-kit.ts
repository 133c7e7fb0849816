import type { LoadParts } from '../budget/cost-model';
import { readGlb } from '../formats/glb/read-glb';
import { compressGlb } from '../formats/glb/compress-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { pieceOfNode } from '../model/kit';
import type { MeshFiles, Target } from '../model/target';
import type { RunContext } from '../context/run-context';
import { inspectKit } from './inspect-kit';

/** A kit's GLB as a GLB for each of its pieces, by the piece's name: its LODs and its collision, with the materials and textures that they use. @throws CoreError 'GLB_UNREADABLE', 'CANCELLED' */
export async function splitKit(glb: Uint8Array, context: RunContext): Promise<Map<string, Uint8Array>> {
  const { meshes } = await readGlb(glb);
  const byPiece = new Map<string, (typeof meshes.pieces)[number][]>();
  for (const mesh of meshes.pieces) {
    const name = pieceOfNode(mesh.name);
    const own = byPiece.get(name);
    if (own) own.push(mesh);
    else byPiece.set(name, [mesh]);
  }
  const files = new Map<string, Uint8Array>();
  for (const [name, pieces] of byPiece) {
    context.checkCancelled();
    context.progress(files.size / byPiece.size, `dividing meshes: ${name}`);
    files.set(name, await writeGlb({ ...meshes, pieces }));
  }
  return files;
}

/** A file of meshes as a target has it. */
export function packedMeshes(glb: Uint8Array, compression: Target['compression']): Promise<Uint8Array> | Uint8Array {
  return compression === 'meshopt' ? compressGlb(glb) : glb;
}

export interface MeshLoadsInput {
  /** A kit's GLB. */
  readonly glb: Uint8Array;
  readonly meshFiles: MeshFiles;
  readonly compression: Target['compression'];
}

/** What the files of a kit's meshes take: of each piece by its name, or of the one under ''. @throws CoreError as `splitKit` */
export async function meshLoads(
  { glb, meshFiles, compression }: MeshLoadsInput,
  context: RunContext,
): Promise<ReadonlyMap<string, LoadParts>> {
  const loads = new Map<string, LoadParts>();
  const files = meshFiles === 'perPiece' ? await splitKit(glb, context) : new Map([['', glb]]);
  for (const [name, bytes] of files) {
    context.checkCancelled();
    const { length: diskBytes } = await packedMeshes(bytes, compression);
    loads.set(name, { files: 1, diskBytes, memoryBytes: inspectKit(bytes).memoryBytes });
  }
  return loads;
}
