import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, WebIO } from '@gltf-transform/core';
import { createRunContext, readPieces } from '@stravel/core';
import { atMost, median, type Row } from '../measure';

/** Tells a process of this bench which file to read. */
const FILE = 'STRAVEL_BENCH_MESH';
const ROUNDS = 3;
const LARGE_MESHES = 8;
/** Squares along a side of each mesh: 160,801 vertices at 32 bytes, 320,000 triangles. */
const SIDE = 400;

/** Sheets with normals and coordinates, as a file of other makers has them. */
async function sheets(count: number, side: number): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  for (let i = 0; i < count; i++) {
    const vertices = (side + 1) * (side + 1);
    const [positions, normals, coordinates] = [3, 3, 2].map((size) => new Float32Array(vertices * size));
    const indices = new Uint32Array(side * side * 6);
    for (let v = 0, r = 0; r <= side; r++) {
      for (let c = 0; c <= side; c++, v++) {
        positions.set([c / 8, Math.sin((r + c + i) / 20), r / 8], v * 3);
        normals[v * 3 + 1] = 1;
        coordinates.set([c / side, r / side], v * 2);
      }
    }
    for (let at = 0, r = 0; r < side; r++) {
      for (let c = 0; c < side; c++, at += 6) {
        const v = r * (side + 1) + c;
        indices.set([v, v + side + 1, v + 1, v + 1, v + side + 1, v + side + 2], at);
      }
    }
    const accessor = (
      type: 'VEC3' | 'VEC2' | 'SCALAR',
      array: Float32Array | Uint32Array,
    ): ReturnType<Document['createAccessor']> =>
      document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', positions))
      .setAttribute('NORMAL', accessor('VEC3', normals))
      .setAttribute('TEXCOORD_0', accessor('VEC2', coordinates))
      .setIndices(accessor('SCALAR', indices));
    scene.addChild(
      document.createNode(`sheet ${i}`).setMesh(document.createMesh(`sheet ${i}`).addPrimitive(primitive)),
    );
  }
  return new WebIO().writeBinary(document);
}

/** Bytes that a process of its own held at most while it imported a file. */
function peakBytes(path: string): number {
  const { stdout, stderr, status } = spawnSync(process.execPath, [process.argv[1], 'mesh-memory'], {
    env: { ...process.env, [FILE]: path },
    encoding: 'utf8',
  });
  if (status !== 0) throw new Error(`the import failed: ${stderr}`);
  return Number(stdout.trim().split('\n').at(-1));
}

/** What the import of a large file holds in memory, in a process of its own, beyond what that of a small one does. */
export async function meshMemoryBench(): Promise<Row[]> {
  const path = process.env[FILE];
  if (path !== undefined) {
    const files = [{ name: 'sheets.glb', bytes: new Uint8Array(readFileSync(path)) }];
    await readPieces({ files, unitMetres: 1, isZUp: false }, createRunContext());
    // Kilobytes, of all that the process ever held at one time.
    process.stdout.write(`${process.resourceUsage().maxRSS * 1024}\n`);
    process.exit(0);
  }
  const folder = mkdtempSync(join(tmpdir(), 'stravel-mesh-memory-'));
  try {
    const [large, small] = [join(folder, 'large.glb'), join(folder, 'small.glb')];
    const bytes = await sheets(LARGE_MESHES, SIDE);
    writeFileSync(large, bytes);
    writeFileSync(small, await sheets(1, 4));
    const shares = Array.from({ length: ROUNDS }, () => (peakBytes(large) - peakBytes(small)) / bytes.length);
    return [
      { name: `file of ${LARGE_MESHES} meshes, MB`, value: (bytes.length / 1e6).toFixed(1) },
      {
        name: 'least and most of the rounds',
        value: `${Math.min(...shares).toFixed(2)} to ${Math.max(...shares).toFixed(2)}`,
      },
      atMost('memory of the import ÷ bytes of the file', median(shares), 4),
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
