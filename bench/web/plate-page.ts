import { turnMatrix, type Placement, type TurnDegrees } from '@stravel/core';
import {
  BoxGeometry,
  DirectionalLight,
  HemisphereLight,
  InstancedMesh,
  Matrix4,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
  type Camera,
} from 'three';
import { StratumDocument } from '../../packages/web/src/app/document/stratum-document';
import type { PieceMesh } from '../../packages/web/src/app/plate/kit-meshes';
import { PlateScene } from '../../packages/web/src/app/plate/plate-scene';

/** One way of drawing the same placements; runs in the browser. */
interface Drawing {
  readonly name: string;
  readonly scene: Scene;
  /** Moves one placement. */
  move(step: number): void;
}

export interface PlateFigures {
  readonly calls: number;
  readonly triangles: number;
  /** Script time of each frame, milliseconds. */
  readonly frameMs: readonly number[];
  readonly firstFrameBytes: number;
  readonly movedBytes: number;
}

const PLACEMENTS = 100000;
const PIECES = 500;
const FRAMES = 16;
const WIDTH = 900;
const HEIGHT = 600;

let uploaded = 0;
countUploads();

/** Draws by the plate and by three.js alone, in turns. */
async function measure(): Promise<Record<'plate' | 'bare', PlateFigures>> {
  const records = placements();
  const meshes = pieces();
  const drawings = [await plateDrawing(records, meshes), bareDrawing(records, meshes)];
  const camera = new PerspectiveCamera(45, WIDTH / HEIGHT, 0.5, 2000);
  camera.position.set(64, 90, 150);
  camera.lookAt(64, 0, 64);
  camera.updateMatrixWorld();
  const benches = drawings.map((drawing) => new Bench(drawing, camera));
  for (let frame = 0; frame < FRAMES; frame++) {
    // Whoever goes first after a pause pays for it, so they take turns.
    for (const bench of frame % 2 === 0 ? benches : [...benches].reverse()) await bench.frame();
  }
  const [plate, bare] = benches.map((bench) => bench.figures());
  return { plate, bare };
}

class Bench {
  private readonly renderer: WebGLRenderer;
  private readonly frameMs: number[] = [];
  private readonly firstFrameBytes: number;

  constructor(
    private readonly drawing: Drawing,
    private readonly camera: Camera,
  ) {
    const canvas = document.createElement('canvas');
    document.body.append(canvas);
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true, stencil: true });
    this.renderer.setSize(WIDTH, HEIGHT, false);
    drawing.scene.traverse((object) => (object.frustumCulled = false));
    uploaded = 0;
    this.render();
    this.firstFrameBytes = uploaded;
  }

  async frame(): Promise<void> {
    await new Promise(requestAnimationFrame);
    const start = performance.now();
    this.render();
    this.frameMs.push(performance.now() - start);
  }

  figures(): PlateFigures {
    const { calls, triangles } = this.renderer.info.render;
    uploaded = 0;
    this.drawing.move(1);
    this.render();
    return {
      calls,
      triangles,
      frameMs: this.frameMs.slice(8),
      firstFrameBytes: this.firstFrameBytes,
      movedBytes: uploaded,
    };
  }

  private render(): void {
    this.renderer.render(this.drawing.scene, this.camera);
  }
}

function placements(): Placement[] {
  return Array.from({ length: PLACEMENTS }, (_unused, i) => ({
    id: `p${String(i).padStart(6, '0')}`,
    piece: `piece-${i % PIECES}`,
    position: [(i * 37) % 127, 0, ((i * 61) % 1270) / 10] as const,
    turn: [(i * 7) % 360, 0, 0] as const,
    scale: [1, 1, 1] as const,
  }));
}

function pieces(): Map<string, PieceMesh> {
  return new Map(
    Array.from({ length: PIECES }, (_unused, i) => [
      `piece-${i}`,
      {
        steps: [
          {
            parts: [
              {
                geometry: new BoxGeometry(0.4 + (i % 5) * 0.1, 0.5, 0.4, 1 + (i % 3), 1, 1),
                material: new MeshLambertMaterial({ color: i * 1000 }),
              },
            ],
            deviationMetres: 0,
          },
        ],
      },
    ]),
  );
}

async function plateDrawing(records: readonly Placement[], meshes: ReadonlyMap<string, PieceMesh>): Promise<Drawing> {
  const document = new StratumDocument('bench');
  document.apply(
    records.map((record) => ({
      document: 'bench',
      kind: 'placement',
      id: record.id,
      field: null,
      before: null,
      after: { ...record },
    })),
  );
  const plate = new PlateScene(() => undefined);
  plate.setMeshes(meshes);
  plate.setStrata([document], new Set());
  // It is drawn in slices: the first frame that counts is the one that shows all.
  while (plate.isDrawing) await new Promise((resolve) => setTimeout(resolve));
  const [first] = records;
  return {
    name: 'plate',
    scene: plate.scene,
    move: (step) =>
      document.apply([
        {
          document: 'bench',
          kind: 'placement',
          id: first.id,
          field: 'position',
          before: [...first.position],
          after: [first.position[0] + step, first.position[1], first.position[2]],
        },
      ]),
  };
}

function bareDrawing(records: readonly Placement[], meshes: ReadonlyMap<string, PieceMesh>): Drawing {
  const scene = new Scene();
  const sun = new DirectionalLight(0xffffff, 1.9);
  sun.position.set(-0.5, 1.2, 0.7);
  scene.add(new HemisphereLight(0xffffff, 0xb8ad9a, 1.6), sun);
  const byPiece = new Map<string, Placement[]>();
  for (const record of records) byPiece.set(record.piece, [...(byPiece.get(record.piece) ?? []), record]);
  const instanced = [...byPiece].map(([piece, list]) => {
    const [{ geometry, material }] = (meshes.get(piece) as PieceMesh).steps[0].parts;
    const mesh = new InstancedMesh(geometry.clone(), material, list.length);
    list.forEach((record, i) => mesh.setMatrixAt(i, matrixOf(record)));
    scene.add(mesh);
    return mesh;
  });
  return {
    name: 'bare',
    scene,
    move: (step) => {
      instanced[0].setMatrixAt(
        0,
        matrixOf(records[0]).setPosition(records[0].position[0] + step, 0, records[0].position[2]),
      );
      instanced[0].instanceMatrix.needsUpdate = true;
    },
  };
}

function matrixOf({ position, turn }: Placement): Matrix4 {
  const m = turnMatrix(turn as TurnDegrees);
  return new Matrix4().set(
    m[0],
    m[1],
    m[2],
    position[0],
    m[3],
    m[4],
    m[5],
    position[1],
    m[6],
    m[7],
    m[8],
    position[2],
    0,
    0,
    0,
    1,
  );
}

/** Counts the bytes that go to buffers. */
function countUploads(): void {
  const gl = WebGL2RenderingContext.prototype;
  // eslint-disable-next-line @typescript-eslint/unbound-method -- both are applied to the context that they are called on
  const { bufferData, bufferSubData } = gl;
  gl.bufferData = function (
    this: WebGL2RenderingContext,
    ...parameters: [number, AllowSharedBufferSource | number | null, number]
  ): void {
    const [, data] = parameters;
    uploaded += typeof data === 'number' ? data : (data?.byteLength ?? 0);
    bufferData.apply(this, parameters as never);
  } as typeof bufferData;
  gl.bufferSubData = function (
    this: WebGL2RenderingContext,
    ...parameters: [number, number, ArrayBufferView, number?, number?]
  ): void {
    const [, , data, , length] = parameters;
    const size = 'BYTES_PER_ELEMENT' in data ? (data.BYTES_PER_ELEMENT as number) : 1;
    uploaded += length === undefined || length === 0 ? data.byteLength : length * size;
    bufferSubData.apply(this, parameters as never);
  } as typeof bufferSubData;
}

Object.assign(globalThis, { measurePlate: measure });
