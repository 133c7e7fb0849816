// Holds the reading of every GLB in a folder against an independent one: npm run meshes FOLDER
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { validateBytes } from 'gltf-validator';
import { createRunContext } from '../packages/core/src/context/run-context';
import { readPieces } from '../packages/core/src/detail/read-pieces';
import { readGlb } from '../packages/core/src/formats/glb/read-glb';
import { meshBounds } from '../packages/core/src/mesh/mesh-cost';
import { plainMeshes } from '../packages/core/src/testing/plain-gltf';

/** Bounds may differ by this share of the largest coordinate: vertices are kept in single precision. */
const TOLERANCE = 1e-5;

const folder = process.argv[2] ?? '.';
const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) => /\.glb$/i.test(name));
const issues = new Map<string, number>();
let differing = 0;
for (const file of files) {
  const bytes = new Uint8Array(readFileSync(join(folder, file)));
  try {
    const fault = await difference(bytes);
    if (fault !== undefined) {
      differing++;
      process.stdout.write(`${file}: ${fault}\n`);
    }
  } catch (error) {
    differing++;
    process.stdout.write(`${file}: ${String(error)}\n`);
  }
}
process.stdout.write(`${files.length - differing} of ${files.length} files read alike\n`);
for (const [code, count] of issues) process.stdout.write(`${code}: ${count} times in what goes out\n`);

async function difference(bytes: Uint8Array): Promise<string | undefined> {
  const { meshes } = await readGlb(bytes);
  const drawn = meshes.pieces.filter(({ parts }) => parts.length > 0);
  const plain = plainMeshes(bytes);
  if (drawn.length !== plain.length) return `${drawn.length} meshes, ${plain.length} expected`;
  for (const [i, piece] of drawn.entries()) {
    const triangles = piece.parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
    if (triangles !== plain[i].triangles)
      return `${piece.name}: ${triangles} triangles, ${plain[i].triangles} expected`;
    const materials = piece.parts.map(({ material }) => (material === null ? '' : meshes.materials[material].name));
    if (materials.join() !== plain[i].materials.join()) return `${piece.name}: materials ${materials.join()}`;
    const { min, max } = meshBounds(piece);
    const [found, wanted] = [
      [...min, ...max],
      [...plain[i].min, ...plain[i].max],
    ];
    const size = Math.max(...wanted.map(Math.abs));
    if (found.some((value, k) => Math.abs(value - wanted[k]) > TOLERANCE * size))
      return `${piece.name}: bounds ${found.join(' ')}, expected ${wanted.join(' ')}`;
  }
  const { glb } = await readPieces(
    { files: [{ name: 'a.glb', bytes }], unitMetres: 1, isZUp: false },
    createRunContext(),
  );
  const { messages } = (await validateBytes(glb ?? new Uint8Array())).issues;
  for (const { severity, code } of messages) if (severity < 2) issues.set(code, (issues.get(code) ?? 0) + 1);
  return undefined;
}
