import { Document, WebIO } from '@gltf-transform/core';
import { execFile, spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const MAIN = join(__dirname, '../dist/main.js');
const folder = mkdtempSync(join(tmpdir(), 'stravel-import-'));
const env = { ...process.env, PORT: '0', STRAVEL_DATA: join(folder, 'data'), STRAVEL_LOG: 'silent' };

/** Needs the build; `./stravel test` builds before it comes here. */
function stravel(
  ...parameters: string[]
): Promise<{ readonly code: number; readonly out: string; readonly err: string }> {
  return new Promise((resolve) => {
    execFile(process.execPath, [MAIN, ...parameters], { env, cwd: folder, maxBuffer: 1e8 }, (error, out, err) => {
      resolve({ code: typeof error?.code === 'number' ? error.code : error ? 1 : 0, out, err });
    });
  });
}

/** Two equal crates that were baked turned, one of another kind scaled, a group, a spawn and a lamp. */
async function writeScene(): Promise<void> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('yard');
  const material = document.createMaterial('timber');
  const mesh = (name: string, positions: readonly number[]): ReturnType<Document['createMesh']> => {
    const place = document.createAccessor().setType('VEC3').setArray(Float32Array.from(positions)).setBuffer(buffer);
    const index = document
      .createAccessor()
      .setType('SCALAR')
      .setArray(Uint16Array.of(0, 1, 2, 0, 2, 3, 0, 3, 1));
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', place)
      .setIndices(index.setBuffer(buffer))
      .setMaterial(material);
    return document.createMesh(name).addPrimitive(primitive);
  };
  const crate = [0, 0, 0, 2, 0, 0, 0, 1, 0, 0, 0, 3];
  const turned = [10, 0, 5, 10, 0, 3, 10, 1, 5, 13, 0, 5];
  const shed = document.createNode('Shed');
  scene.addChild(shed).addChild(document.createNode('Spawn').setTranslation([1, 0, 1]));
  shed.addChild(document.createNode('a').setMesh(mesh('crate', crate)));
  shed.addChild(document.createNode('b').setMesh(mesh('crate.001', turned)));
  scene.addChild(
    document
      .createNode('post')
      .setMesh(
        mesh(
          'post',
          crate.map((value) => value * 2),
        ),
      )
      .setScale([1, 2, 1]),
  );
  scene.addChild(document.createNode('lamp'));
  writeFileSync(join(folder, 'yard.glb'), await new WebIO().writeBinary(document));
}

describe('importing a scene by the shell', () => {
  beforeAll(async () => {
    await writeScene();
    expect((await stravel('new', 'Yard')).code).toBe(0);
  }, 60000);

  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('says what it becomes and changes nothing without --yes', async () => {
    const { code, out } = await stravel('import', 'yard.glb', '--level', 'new-level', '--json');
    expect(code).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      name: 'yard',
      meshes: 3,
      pieces: [
        { name: 'crate', meshes: 2, triangles: 3 },
        { name: 'post', meshes: 1, triangles: 3 },
      ],
      placements: 3,
      groups: 1,
      markers: [{ kind: 'spawn', path: 'Spawn' }],
      edit: null,
      level: 'new-level',
    });
    expect((await stravel('import', 'yard.glb', '--level', 'new-level')).out).toMatch(
      /^yard: 3 meshes → 2 pieces, 3 placements, 1 group, 1 marker\ncrate: 2 equal meshes, within 0\.00\d mm\n[^]*nothing was changed: --yes imports it into New level\n$/,
    );
  }, 60000);

  it('makes a new level of a set', async () => {
    const { code, out, err } = await stravel('import', 'yard.glb', '--set', 'part 1', '--yes', '--json');
    expect([code, err]).toEqual([0, '']);
    expect(JSON.parse(out)).toMatchObject({ level: 'yard', edit: 1 });
    expect((await stravel('import', 'yard.glb', '--level', 'yard')).code).toBe(0);
  }, 60000);

  it('imports from the folder and through a server alike, and what it made packs', async () => {
    const first = await stravel('import', 'yard.glb', '--level', 'new-level', '--yes');
    expect([first.code, first.err]).toEqual([0, '']);
    expect(first.out).toContain('imported into New level as edit 2\n');
    const server = spawn(process.execPath, [MAIN, 'serve'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
    try {
      await new Promise<void>((resolve) =>
        server.stdout.on('data', (data: Buffer) => /Stravel is at/.test(data.toString()) && resolve()),
      );
      const second = await stravel('import', 'yard.glb', '--level', 'new-level', '--yes', '--json');
      expect([second.code, second.err]).toEqual([0, '']);
      expect(JSON.parse(second.out)).toMatchObject({ edit: 3 });
      expect((await stravel('check')).out).toContain('no errors');
      const packed = await stravel('pack', join(folder, 'pack'));
      expect([packed.code, packed.err]).toEqual([0, '']);
      expect(packed.out).toContain('2 levels and 3 kits are in');
    } finally {
      server.kill('SIGKILL');
    }
    expect((await stravel('verify')).out).toContain('no faults found');
  }, 120000);

  it.each([
    [['import', 'yard.glb', '--level', 'nowhere'], 'there is no level with the key nowhere; there are: new-level'],
    [['import', 'none.glb', '--level', 'new-level'], 'none.glb'],
    [['import', 'bad.glb', '--level', 'new-level'], 'there is no scene among bad.glb'],
    [['import', 'yard.glb', 'yard.glb', '--level', 'new-level'], 'takes one scene at a time'],
    [['import', 'yard.glb', '--level', 'new-level', '--unit', '0'], 'a unit must be above 0 metres'],
    [['import', 'yard.glb'], 'say where it goes'],
    [['import', 'yard.glb', '--level', 'new-level', '--set', 'Part 1'], 'say where it goes'],
    [['import', 'yard.glb', '--set', 'Nowhere'], 'there is no set Nowhere; there are: Part 1 (set-1)'],
  ])('refuses %j', async (parameters, text) => {
    writeFileSync(join(folder, 'bad.glb'), 'no GLB at all');
    const { code, err } = await stravel(...parameters);
    expect(code).toBe(2);
    expect(err).toContain(text);
  });
});
