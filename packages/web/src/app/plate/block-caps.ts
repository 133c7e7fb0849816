import {
  BackSide,
  DecrementWrapStencilOp,
  DoubleSide,
  FrontSide,
  Group,
  IncrementWrapStencilOp,
  Mesh,
  MeshBasicMaterial,
  NotEqualStencilFunc,
  PlaneGeometry,
  Scene,
  ZeroStencilOp,
  type BufferGeometry,
  type Camera,
} from 'three';

/**
 * Fills the places where a plane cuts solids, seen from above: every back face below the plane counts one up, every front
 * face one down, and what is left over lies inside a solid. Solids may overlap freely.
 * Source: McReynolds and Blythe, Advanced Graphics Programming Using OpenGL, 2005, section 16.9 (capping by stencil).
 */
export class BlockCaps {
  /** Drawn with the clipping plane on. */
  readonly counts = new Scene();
  /** Drawn after it with none; leaves the stencil at zero. */
  readonly fill = new Scene();
  private readonly up = countingMaterial(BackSide, IncrementWrapStencilOp);
  private readonly down = countingMaterial(FrontSide, DecrementWrapStencilOp);
  private readonly ink = new MeshBasicMaterial({
    depthTest: false,
    depthWrite: false,
    stencilWrite: true,
    stencilFunc: NotEqualStencilFunc,
    stencilRef: 0,
    side: DoubleSide,
  });
  private readonly sheet = new Mesh(new PlaneGeometry(2, 2), this.ink);

  constructor() {
    this.ink.stencilZPass = this.ink.stencilZFail = this.ink.stencilFail = ZeroStencilOp;
    this.sheet.frustumCulled = false;
    this.sheet.onBeforeRender = (_renderer, _scene, camera) => this.coverView(camera);
    this.fill.add(this.sheet);
  }

  setColour(colour: string): void {
    this.ink.color.set(colour);
  }

  /** The two counting meshes of a geometry that closes solids. */
  meshes(geometry: BufferGeometry): Mesh[] {
    return [new Mesh(geometry, this.up), new Mesh(geometry, this.down)];
  }

  /** A group of counting meshes that can be hidden together. */
  group(): Group {
    const group = new Group();
    this.counts.add(group);
    return group;
  }

  dispose(): void {
    for (const material of [this.up, this.down, this.ink]) material.dispose();
    this.sheet.geometry.dispose();
  }

  /** Lays the sheet over all that a camera sees, whatever its frame. */
  private coverView(camera: Camera): void {
    // The renderer makes the model-view matrix of this after the call.
    this.sheet.matrixWorld.multiplyMatrices(camera.matrixWorld, camera.projectionMatrixInverse);
  }
}

function countingMaterial(
  side: typeof FrontSide | typeof BackSide,
  operation: typeof IncrementWrapStencilOp | typeof DecrementWrapStencilOp,
): MeshBasicMaterial {
  const material = new MeshBasicMaterial({
    side,
    colorWrite: false,
    depthTest: false,
    depthWrite: false,
    stencilWrite: true,
  });
  material.stencilZPass = material.stencilZFail = operation;
  return material;
}
