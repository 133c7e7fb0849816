import { Document, WebIO } from '@gltf-transform/core';
import { createRunContext, planScene, readGlb, readPieces, readScene } from '@stravel/core';
import { atMost, inTurns, timing, timingText, type Row } from '../measure';

const NODES = 20000;
const MESHES = 2000;
/** Squares along a side of each mesh. */
const SIDE = 8;
const ROUNDS = 7;

/** A scene of so many nodes in a hundred rows, ten of them showing each mesh. */
async function scene(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const top = document.createScene();
  const meshes = Array.from({ length: MESHES }, (_unused, i) => {
    const positions: number[] = [];
    const indices: number[] = [];
    for (let r = 0; r <= SIDE; r++) for (let c = 0; c <= SIDE; c++) positions.push(c, Math.sin(r + c + i) / 4, r);
    for (let r = 0; r < SIDE; r++)
      for (let c = 0; c < SIDE; c++) {
        const v = r * (SIDE + 1) + c;
        indices.push(v, v + SIDE + 1, v + 1, v + 1, v + SIDE + 1, v + SIDE + 2);
      }
    const accessor = (
      type: 'VEC3' | 'SCALAR',
      array: Float32Array | Uint16Array,
    ): ReturnType<Document['createAccessor']> =>
      document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
    const up = Float32Array.from(positions, (_value, k) => (k % 3 === 1 ? 1 : 0));
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', Float32Array.from(positions)))
      .setAttribute('NORMAL', accessor('VEC3', up))
      .setIndices(accessor('SCALAR', Uint16Array.from(indices)));
    return document.createMesh(`mesh ${i}`).addPrimitive(primitive);
  });
  const rows = Array.from({ length: 100 }, (_unused, i) =>
    document.createNode(`row ${i}`).setTranslation([0, 0, i * 20]),
  );
  for (const row of rows) top.addChild(row);
  for (let i = 0; i < NODES - rows.length; i++)
    rows[i % rows.length].addChild(
      document
        .createNode(`node ${i}`)
        .setMesh(meshes[i % MESHES])
        .setTranslation([i, 0, 0])
        .setRotation([0, Math.sin(i), 0, Math.cos(i)]),
    );
  return new WebIO().writeBinary(document);
}

/** A GLB of many nodes, against its library reading it; and its whole import. */
export async function meshesBench(): Promise<Row[]> {
  const bytes = await scene();
  const [own, plain] = await inTurns(
    ROUNDS,
    () => readGlb(bytes),
    () => new WebIO().readBinary(bytes),
  );
  const [planned, plainAgain] = await inTurns(
    ROUNDS,
    async () => {
      const read = await readScene('glb', bytes, () => undefined, {});
      return planScene({ scene: read, unitMetres: 1, isZUp: false }, createRunContext());
    },
    () => new WebIO().readBinary(bytes),
  );
  const read = await readGlb(bytes);
  const start = performance.now();
  const { pieces } = await readPieces(
    { files: [{ name: 'scene.glb', bytes }], unitMetres: 1, isZUp: false },
    createRunContext(),
  );
  const whole = timing([performance.now() - start]);
  return [
    { name: `file of ${NODES} nodes, ${read.meshes.pieces.length} meshes, MB`, value: (bytes.length / 1e6).toFixed(1) },
    { name: 'reading it', value: timingText(own) },
    { name: "its library's reading", value: timingText(plain) },
    atMost("reading ÷ the library's", own.medianMs / plain.medianMs, 3),
    { name: 'reading it as a scene, planned', value: timingText(planned) },
    atMost("reading and planning ÷ the library's reading", planned.medianMs / plainAgain.medianMs, 3),
    { name: `whole import, ${pieces.length} pieces checked and written`, value: timingText(whole) },
  ];
}
