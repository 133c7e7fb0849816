import { Document, WebIO, type Node } from '@gltf-transform/core';
import fc from 'fast-check';
import { createRunContext } from '../context/run-context';
import { readScene } from '../formats/glb/read-scene';
import { movedPoint } from '../geometry/matrix';
import { turnMatrix } from '../geometry/turn';
import { positionsOf } from '../mesh/kit-meshes';
import type { Vector3 } from '../model/vector';
import { matchesName } from './name-pattern';
import { planScene, type PlanSceneInput, type ScenePlan } from './plan-scene';

const context = createRunContext();
const WEDGE = [0, 0, 0, 3, 0, 0, 3, 0.4, 0, 0, 1.2, 0, 0.2, 0.3, 0.9, 1.1, 0.1, 2];
const INDICES = Uint16Array.of(0, 1, 2, 0, 2, 3, 3, 4, 0, 4, 5, 1);

/** A document with a mesh, and what makes nodes of it. */
class Builder {
  readonly document = new Document();
  private readonly buffer = this.document.createBuffer();
  readonly scene = this.document.createScene('all');

  mesh(name: string, positions: readonly number[] = WEDGE): ReturnType<Document['createMesh']> {
    const place = this.document
      .createAccessor()
      .setType('VEC3')
      .setArray(Float32Array.from(positions))
      .setBuffer(this.buffer);
    const index = this.document.createAccessor().setType('SCALAR').setArray(INDICES).setBuffer(this.buffer);
    const primitive = this.document.createPrimitive().setAttribute('POSITION', place).setIndices(index);
    return this.document.createMesh(name).addPrimitive(primitive);
  }

  node(name: string, parent?: Node): Node {
    const node = this.document.createNode(name);
    if (parent) parent.addChild(node);
    else this.scene.addChild(node);
    return node;
  }

  async plan(change: Partial<PlanSceneInput> = {}): Promise<ScenePlan> {
    const glb = await new WebIO().writeBinary(this.document);
    const scene = await readScene('glb', glb, () => undefined, {});
    return planScene({ scene, unitMetres: 1, isZUp: false, ...change }, context);
  }
}

/** Where the vertices of a placement lie. */
function verticesOf({ pieces, placements }: ScenePlan, number: number): Vector3[] {
  const { piece, position, turn, scale } = placements[number];
  const m = turnMatrix(turn);
  return pieces[piece].mesh.parts.flatMap((part) => {
    const values = positionsOf(part);
    return Array.from({ length: values.length / 3 }, (_one, i): Vector3 => {
      const p = [0, 1, 2].map((k) => values[i * 3 + k] * scale[k]);
      const of = (row: number): number =>
        m[row * 3] * p[0] + m[row * 3 + 1] * p[1] + m[row * 3 + 2] * p[2] + position[row];
      return [of(0), of(1), of(2)];
    });
  });
}

function farthest(a: readonly Vector3[], b: readonly Vector3[]): number {
  return Math.max(...a.map((p, i) => Math.hypot(p[0] - b[i][0], p[1] - b[i][1], p[2] - b[i][2])));
}

const wedge = Array.from(
  { length: 6 },
  (_one, i): Vector3 => [WEDGE[i * 3], WEDGE[i * 3 + 1], WEDGE[i * 3 + 2]].map(Math.fround) as unknown as Vector3,
);

describe('planning a scene', () => {
  it('puts every vertex of any tree of nodes where the file has it, within a millionth of what it is long', async () => {
    // Whoever writes files leaves out what is nearly nothing.
    const value = fc.integer({ min: -640, max: 640 }).map((sixteenths) => sixteenths / 16);
    const turn = fc.tuple(value, value, value, value).filter((q) => Math.hypot(...q) > 0.1);
    const size = fc.constantFrom(1, 1, 1, 2, 0.25, -1, -3);
    const step = fc.record({
      parent: fc.nat(),
      move: fc.tuple(value, value, value),
      turn,
      scale: fc.oneof(fc.constant<[number, number, number]>([1, 1, 1]), fc.tuple(size, size, size)),
      hasMesh: fc.boolean(),
    });
    let [sheared, placed] = [0, 0];
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 12 }), fc.boolean(), async (steps, isZUp) => {
        const builder = new Builder();
        const mesh = builder.mesh('wedge');
        const nodes: Node[] = [];
        for (const [i, { parent, move, turn: q, scale, hasMesh }] of steps.entries()) {
          const node = builder.node(`n${i}`, i === 0 || parent % (i + 1) === i ? undefined : nodes[parent % i]);
          const length = Math.hypot(...q);
          node
            .setTranslation(move)
            .setRotation(q.map((one) => one / length) as typeof q)
            .setScale(scale);
          if (hasMesh) node.setMesh(mesh);
          nodes.push(node);
        }
        const unitMetres = 0.5;
        const plan = await builder.plan({ unitMetres, isZUp });
        const paths = plan.placements.map(({ path }) => path.split('/').at(-1));
        expect([...paths].sort()).toEqual(
          nodes
            .filter((node) => node.getMesh())
            .map((node) => node.getName())
            .sort(),
        );
        for (const [i, name] of paths.entries()) {
          const node = nodes.find((one) => one.getName() === name);
          const world = node?.getWorldMatrix() ?? [];
          const wanted = wedge.map((p): Vector3 => {
            const [x, y, z] = movedPoint(world, p);
            return isZUp
              ? [x * unitMetres, z * unitMetres, -y * unitMetres]
              : [x * unitMetres, y * unitMetres, z * unitMetres];
          });
          const reach = Math.max(1, ...wanted.flat().map(Math.abs));
          expect(farthest(verticesOf(plan, i), wanted)).toBeLessThanOrEqual(1e-6 * reach);
          placed++;
        }
        sheared += plan.faults.filter(({ message }) => message.startsWith('is sheared')).length;
      }),
      { numRuns: 150 },
    );
    expect(Math.min(sheared, placed)).toBeGreaterThan(20);
  });

  it('makes one piece of meshes that are one, baked turned and moved, and puts its origin below it', async () => {
    const builder = new Builder();
    builder.node('a').setMesh(builder.mesh('wedge.001'));
    const baked = WEDGE.flatMap((_one, i) =>
      i % 3 === 0 ? [-WEDGE[i + 2] + 800, WEDGE[i + 1] + 5, WEDGE[i] - 300] : [],
    );
    builder.node('b').setMesh(builder.mesh('wedge.002', baked));
    const plan = await builder.plan();
    expect(plan.pieces.map(({ mesh, meshes }) => [mesh.name, meshes])).toEqual([['wedge-001', 2]]);
    expect(plan.pieces[0].offMetres).toBeLessThan(1e-4);
    const wanted = Array.from({ length: 6 }, (_one, i): Vector3 => [baked[i * 3], baked[i * 3 + 1], baked[i * 3 + 2]]);
    expect(farthest(verticesOf(plan, 1), wanted)).toBeLessThan(1e-4);

    const far = new Builder();
    far.node('c').setMesh(far.mesh('far', baked));
    const moved = await far.plan();
    expect(moved.placements[0].position.map((value) => Math.round(value * 10) / 10)).toEqual([799, 5, -298.5]);
    expect(farthest(verticesOf(moved, 0), wanted)).toBeLessThan(1e-4);
  });

  it('makes groups of nodes that others hang in, markers by their names, and tells what is left out', async () => {
    const builder = new Builder();
    const mesh = builder.mesh('wedge');
    const root = builder.node('Yard');
    const lamps = builder.node('Lamps', root);
    const row = builder.node('Row', lamps);
    builder.node('l', row).setMesh(mesh);
    builder.node('l', row).setMesh(mesh).setScale([2, 2, 2]);
    builder.node('SPAWN_main', root).setTranslation([4, 0, 5]).setRotation([0, Math.SQRT1_2, 0, Math.SQRT1_2]);
    builder.node('exit', lamps).setTranslation([1, 2, 3]);
    builder.node('nothing', root);
    builder.node('eye', root).setCamera(builder.document.createCamera());
    builder.node('wedge_collision', root).setMesh(builder.mesh('c'));
    builder.node('wedge', root).setMesh(mesh);
    const plan = await builder.plan();
    expect(plan.groups).toEqual([
      { path: 'Yard/Lamps', name: 'Lamps', parent: -1 },
      { path: 'Yard/Lamps/Row', name: 'Row', parent: 0 },
    ]);
    expect(plan.placements.map(({ path, group, scale }) => [path, group, scale[0]])).toEqual([
      ['Yard/Lamps/Row/l', 1, 1],
      ['Yard/Lamps/Row/l#2', 1, 2],
      ['Yard/wedge', -1, 1],
    ]);
    expect(plan.markers.map(({ kind, position, turn, group }) => [kind, position, Math.round(turn), group])).toEqual([
      ['exit', [1, 2, 3], 0, 0],
      ['spawn', [4, 0, 5], 90, -1],
    ]);
    expect(plan.faults.map(({ message }) => message)).toEqual([
      '1 empty node left out: no pattern names them',
      '1 camera left out: no pattern names them',
      '1 collision mesh is left out: set collisions on Detail',
    ]);
  });

  it('leaves out what is flat, and takes a scale that all have into the mesh', async () => {
    const builder = new Builder();
    const mesh = builder.mesh('wedge');
    builder.node('flat').setMesh(mesh).setScale([1, 0, 1]);
    builder.node('small').setMesh(mesh).setScale([0.0001, 0.0001, -0.0001]);
    const plan = await builder.plan();
    expect(plan.placements.map(({ path, scale }) => [path, scale])).toEqual([['small', [-1, 1, 1]]]);
    expect(Math.max(...positionsOf(plan.pieces[0].mesh.parts[0]))).toBeCloseTo(0.0003, 9);
    expect(plan.faults[0]).toMatchObject({ where: 'flat', severity: 'warning' });
  });

  it.each([
    ['spawn*', 'Spawn.001', true],
    ['spawn*', 'respawn', false],
    ['*spawn*', 'RespawnPoint', true],
    ['a*b*c', 'abc', true],
    ['a*b*c', 'acb', false],
    ['a*a', 'a', false],
    ['exit', 'EXIT', true],
    ['*', '', true],
  ])('matches %s with %s: %s', (pattern, name, isMatch) => expect(matchesName(pattern, name)).toBe(isMatch));
});
