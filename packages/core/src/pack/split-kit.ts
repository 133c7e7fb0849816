import type { LoadParts } from '../budget/cost-model';
import { readGlb } from '../formats/glb/read-glb';
import { writeGlb } from '../formats/glb/write-glb';
import { pieceOfNode } from '../model/kit';
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

/** What the file of each piece takes, by its name. */
export async function splitLoads(glb: Uint8Array, context: RunContext): Promise<ReadonlyMap<string, LoadParts>> {
  const loads = new Map<string, LoadParts>();
  for (const [name, bytes] of await splitKit(glb, context)) {
    const { memoryBytes, fileBytes } = inspectKit(bytes);
    loads.set(name, { files: 1, diskBytes: fileBytes, memoryBytes });
  }
  return loads;
}
