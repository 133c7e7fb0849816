import { validateBytes } from 'gltf-validator';
import type { Object3D } from 'three';
import {
  BoxGeometry,
  BufferGeometry,
  Float32BufferAttribute,
  Group,
  InstancedMesh,
  InterleavedBuffer,
  InterleavedBufferAttribute,
  LatheGeometry,
  LineSegments,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshPhysicalMaterial,
  MeshStandardMaterial,
  Points,
  Scene,
  SphereGeometry,
  TorusKnotGeometry,
  Vector2,
  type Material,
} from 'three';
import { GLTFExporter } from 'three/addons/exporters/GLTFExporter.js';
import { createRunContext } from '../../context/run-context';
import { readPieces } from '../../detail/read-pieces';
import { randomStream } from '../../random/random-stream';
import { plainMeshes } from '../../testing/plain-gltf';
import { readGlb } from './read-glb';

/** What the exporter asks of a browser. */
class BlobReader {
  result: ArrayBuffer | null = null;
  onloadend: (() => void) | null = null;

  readAsArrayBuffer(blob: Blob): void {
    void blob.arrayBuffer().then((buffer) => {
      this.result = buffer;
      this.onloadend?.();
    });
  }
}

async function exported(scene: Object3D): Promise<Uint8Array> {
  Object.assign(globalThis, { FileReader: BlobReader });
  const written = await new GLTFExporter().parseAsync(scene, { binary: true, onlyVisible: false });
  return new Uint8Array(written as ArrayBuffer);
}

function geometryOf(at: number): BufferGeometry {
  const forms = [
    () => new BoxGeometry(1, 2, 3),
    () => new SphereGeometry(2, 12, 8).toNonIndexed(),
    () => new TorusKnotGeometry(1, 0.3, 40, 6),
    () => new LatheGeometry([new Vector2(0, 0), new Vector2(1, 0.5), new Vector2(0.4, 2)], 9),
    interleaved,
  ];
  return forms[at % forms.length]();
}

/** A square whose positions and normals stand in one buffer. */
function interleaved(): BufferGeometry {
  const buffer = new InterleavedBuffer(
    Float32Array.from([0, 0, 0, 0, 1, 0, 3, 0, 0, 0, 1, 0, 3, 0, 2, 0, 1, 0, 0, 0, 2, 0, 1, 0]),
    6,
  );
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new InterleavedBufferAttribute(buffer, 3, 0));
  geometry.setAttribute('normal', new InterleavedBufferAttribute(buffer, 3, 3));
  geometry.setIndex([0, 2, 1, 0, 3, 2]);
  return geometry;
}

function materialOf(at: number): Material {
  const materials = [
    () =>
      new MeshStandardMaterial({
        name: `plain ${at}`,
        color: 0x884422,
        roughness: 0.3,
        transparent: true,
        opacity: 0.5,
      }),
    () => new MeshBasicMaterial({ name: `unlit ${at}`, color: 0x112233 }),
    () => new MeshPhysicalMaterial({ name: `coat ${at}`, clearcoat: 0.5, clearcoatRoughness: 0.2, ior: 1.3, side: 2 }),
    () => new MeshPhysicalMaterial({ name: `glass ${at}`, transmission: 0.9, thickness: 0.4, attenuationDistance: 2 }),
    () =>
      new MeshPhysicalMaterial({
        name: `cloth ${at}`,
        sheen: 1,
        specularIntensity: 0.4,
        iridescence: 0.5,
        alphaTest: 0.3,
      }),
    () => new MeshStandardMaterial({ name: `glow ${at}`, emissive: 0xff8800, emissiveIntensity: 3 }),
  ];
  return materials[at % materials.length]();
}

/** Meshes turned, scaled and mirrored in groups, some of several materials, some placed many times, with lines and points between. */
function sceneOf(seed: string): Scene {
  const random = randomStream(seed);
  const scene = new Scene();
  let group: Object3D = scene;
  for (let i = 0; i < 12; i++) {
    const geometry = geometryOf(random.below(5));
    const material = materialOf(random.below(6));
    let mesh: Object3D = new Mesh(geometry, material);
    if (random.below(4) === 0 && geometry.index) {
      geometry.clearGroups();
      const half = Math.floor(geometry.index.count / 6) * 3;
      geometry.addGroup(0, half, 0);
      geometry.addGroup(half, geometry.index.count - half, 1);
      mesh = new Mesh(geometry, [material, materialOf(random.below(6))]);
    } else if (random.below(5) === 0) {
      const many = new InstancedMesh(geometry, material, 3);
      for (let k = 0; k < 3; k++) many.setMatrixAt(k, new Matrix4().makeTranslation(k, 0, 0));
      mesh = many;
    }
    if (random.below(3) === 0)
      geometry.setAttribute(
        'color',
        new Float32BufferAttribute(
          Array.from({ length: geometry.attributes['position'].count * 3 }, () => random.next()),
          3,
        ),
      );
    mesh.name = `piece ${i}`;
    mesh.position.set(random.next() * 100, random.next() * 10, random.next() * 100);
    mesh.rotation.set(random.next() * 6, random.next() * 6, random.next() * 6);
    mesh.scale.set(random.next() + 0.5, random.next() + 0.5, (random.next() + 0.5) * (random.below(3) === 0 ? -1 : 1));
    group.add(mesh);
    if (random.below(3) === 0) {
      const next = new Group();
      next.rotation.y = random.next() * 6;
      next.scale.setScalar(random.next() + 0.2);
      group.add(next);
      group = next;
    }
    if (random.below(4) === 0)
      group.add(
        random.below(2) === 0
          ? new Points(geometry.clone(), materialOf(1))
          : new LineSegments(geometry.clone(), materialOf(1)),
      );
  }
  return scene;
}

describe('a GLB that a common library exports', () => {
  it.each(['salt', 'tide', 'lehr', 'bell', 'lamp', 'soda', 'clay', 'ash'])(
    'has the triangles, bounds, materials of an independent reading, and goes out sound (%s)',
    async (seed) => {
      const bytes = await exported(sceneOf(seed));
      const plain = plainMeshes(bytes);
      const { meshes } = await readGlb(bytes);
      const drawn = meshes.pieces.filter(({ parts }) => parts.length > 0);
      expect(drawn.map(({ parts }) => parts.reduce((sum, { indices }) => sum + indices.length / 3, 0))).toEqual(
        plain.map(({ triangles }) => triangles),
      );
      expect(drawn.map(({ parts }) => parts.map(({ material }) => meshes.materials[material ?? -1].name))).toEqual(
        plain.map(({ materials }) => materials),
      );
      drawn.forEach(({ parts }, i) => {
        const values = parts.flatMap(({ attributes: [position], indices }) =>
          [...indices].map((corner) => [...position.values.subarray(corner * 3, corner * 3 + 3)]),
        );
        for (let k = 0; k < 3; k++) {
          expect(Math.min(...values.map((p) => p[k]))).toBeCloseTo(plain[i].min[k], 4);
          expect(Math.max(...values.map((p) => p[k]))).toBeCloseTo(plain[i].max[k], 4);
        }
      });
      const result = await readPieces(
        { files: [{ name: 'a.glb', bytes }], unitMetres: 1, isZUp: false },
        createRunContext(),
      );
      expect(result.report.faults.filter(({ severity }) => severity === 'error').map(({ message }) => message)).toEqual(
        meshes.pieces.filter(({ parts }) => parts.length === 0).map(() => 'has no triangles; the piece is left out'),
      );
      const { issues } = await validateBytes(result.glb ?? new Uint8Array());
      expect(issues.messages.filter(({ severity }) => severity < 2)).toEqual([]);
    },
  );
});
