import { BoxGeometry, Group, Matrix4, MeshBasicMaterial, PlaneGeometry, Vector3, type InstancedMesh } from 'three';
import { PlacementStore } from '../document/placement-columns';
import { PlacementInstances } from './placement-instances';

const material = new MeshBasicMaterial();
const chained = {
  steps: [
    { parts: [{ geometry: new BoxGeometry(1, 1, 1), material }], deviationMetres: 0 },
    { parts: [{ geometry: new PlaneGeometry(1, 1), material }], deviationMetres: 0.1 },
  ],
};
const placement = (id: string, x: number, scale = 1) => ({
  id,
  piece: 'stack',
  position: [x, 0, 16] as const,
  turn: [0, 0, 0] as const,
  scale: [scale, scale, scale] as const,
});

describe('placements drawn at a detail step', () => {
  let store: PlacementStore;
  let group: Group;
  let instances: PlacementInstances;
  const shown = (): number[] =>
    group.children.filter(({ visible }) => visible).map((mesh) => (mesh as InstancedMesh).geometry.index?.count ?? 0);

  beforeEach(async () => {
    store = new PlacementStore();
    group = new Group();
    instances = new PlacementInstances(group, store, () => chained);
    store.put(placement('near', 16));
    store.put(placement('far', 216));
    instances.rebuild();
    // A busy machine draws even little in more than one slice.
    while (instances.isDrawing) await new Promise((resolve) => setTimeout(resolve));
  });

  it('show the full step near and the coarse one where it is off by no more than allowed', () => {
    expect([shown(), instances.triangles]).toEqual([[36, 36], 24]);
    // 1000 pixels a metre at 1 m: 0.1 m are a pixel at 100 m; squares reach 23.5 m about their middle.
    instances.chooseSteps({ eye: [16, 0, 16], pixels: 1000, errorPixels: 1 });
    expect([shown().sort(), instances.triangles]).toEqual([[36, 6], 14]);
    instances.chooseSteps({ eye: [16, 0, 16], pixels: 1000, errorPixels: 0.1 });
    expect(instances.triangles).toBe(24);
    // On a plan all is drawn to one scale: 5 pixels a metre make 0.1 m half a pixel.
    instances.chooseSteps({ eye: undefined, pixels: 5, errorPixels: 1 });
    expect(instances.triangles).toBe(4);
    instances.chooseSteps({ eye: undefined, pixels: 20, errorPixels: 1 });
    expect(instances.triangles).toBe(24);
  });

  it('count the scale of what stands there, and keep the step when a placement moves', () => {
    instances.chooseSteps({ eye: undefined, pixels: 5, errorPixels: 1 });
    store.put(placement('far', 218));
    instances.update(store.slotOf('far'));
    expect(instances.triangles).toBe(4);
    store.put(placement('far', 218, 10));
    instances.update(store.slotOf('far'));
    instances.chooseSteps({ eye: undefined, pixels: 5, errorPixels: 1 });
    expect(instances.triangles).toBe(14);
    store.delete('far');
    instances.update(1);
    expect(instances.triangles).toBe(2);
    instances.dispose();
    expect(group.children).toEqual([]);
  });

  it('mirrored ones stand in a mesh that three draws the other way round, and each where it should', () => {
    const image = { ...placement('near', 18), scale: [-2, 1, 1] as const };
    store.put(image);
    instances.update(store.slotOf('near'));
    const mesh = group.children.find(({ scale }) => scale.x < 0) as InstancedMesh;
    mesh.updateMatrixWorld();
    const matrix = new Matrix4().multiplyMatrices(mesh.matrixWorld, new Matrix4().fromArray(mesh.instanceMatrix.array));
    expect([mesh.count, mesh.matrixWorld.determinant() < 0, matrix.determinant() < 0]).toEqual([1, true, true]);
    const corner = new Vector3(0.5, 0.25, 0).applyMatrix4(matrix);
    expect(corner.toArray()).toEqual([17, 0.25, 16]);
    const culled = mesh.boundingSphere?.clone().applyMatrix4(mesh.matrixWorld);
    expect(culled?.containsPoint(corner)).toBe(true);
    // Back again: none is left in the mirrored mesh.
    store.put(placement('near', 18));
    instances.update(store.slotOf('near'));
    expect([mesh.count, instances.triangles]).toEqual([0, 24]);
  });

  it('of many pieces that stand far apart share wider squares, and all are drawn in the end', async () => {
    const plain = { steps: [chained.steps[0]] };
    const many = new PlacementStore();
    for (let i = 0; i < 4000; i++)
      many.put({
        ...placement(`p${i}`, 0),
        piece: `piece ${i % 40}`.replace(' ', '-'),
        position: [(i * 7919) % 4000, 0, (i * 104729) % 4000],
      });
    const all = new PlacementInstances(group, many, () => plain);
    all.rebuild();
    while (all.isDrawing) await new Promise((resolve) => setTimeout(resolve));
    expect(all.triangles).toBe(4000 * 12);
    const squares = group.children.length;
    expect(squares).toBeLessThan(200);
    // What is moved far keeps to the same squares, and what is taken out and put in is counted again.
    many.put({ ...placement('p7', 0), piece: 'piece-7', position: [3999, 0, 3999] });
    all.update(many.slotOf('p7'));
    expect(all.triangles).toBe(4000 * 12);
  });
});
