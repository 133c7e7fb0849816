import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { STANDARD_DEVICES, createRunContext } from '@stravel/core';
import { ALL_SAVINGS } from '@stravel/walker';
import { PackWalks } from './pack-walks';

const PACK = join(__dirname, '../../../../../docs/formats/example-pack/pack');
const address = { base: '/packs/example/', level: 'cistern' };
const context = createRunContext();
const route = {
  knots: [
    [-14, 0],
    [14, 0],
  ] as const,
  speedMetresPerSecond: 6,
  floors: { spacingMetres: 1000, heights: [0] },
};

/** Answers with the example pack; some files are others, or none. */
function serve(others: Readonly<Record<string, () => Uint8Array | undefined>> = {}): void {
  globalThis.fetch = ((url: string) => {
    const path = url.slice(address.base.length);
    const bytes = Object.hasOwn(others, path) ? others[path]() : new Uint8Array(readFileSync(join(PACK, path)));
    const answer = { ok: bytes !== undefined, status: bytes ? 200 : 404, arrayBuffer: () => bytes?.slice().buffer };
    return Promise.resolve(answer);
  }) as unknown as typeof fetch;
}

describe('walks of packs in a worker', () => {
  const [device] = STANDARD_DEVICES;
  const walked = { ...device, order: 'a' };

  it('reads a level once, and walks it as often as asked', async () => {
    serve();
    const walks = new PackWalks();
    const opened = await walks.open(address, context);
    expect([opened.files, opened.cells.length, opened.start]).toEqual([7, 0, [-14, 0, 0]]);
    expect(opened.objects.length).toBeGreaterThan(10);
    serve({ 'manifest.json': () => undefined });
    const task = { ...address, route, device: walked, savings: ALL_SAVINGS, forecast: undefined };
    const { measured, comparison } = await walks.walk(task, context);
    expect(measured.stops.length).toBeGreaterThan(20);
    expect(comparison).toBeUndefined();
    const steered = { ...address, at: opened.start, speedMetresPerSecond: 6, device: walked };
    expect((await walks.steer(steered, context)).triangles).toBe(measured.triangles[0]);
    expect(walks.step({ heading: [1, 0], frames: 3 }).atMs).toBeCloseTo((3 * 1000) / device.framesPerSecond, 6);
    expect(walks.way()[0]).toEqual([-14, 0]);
  });

  it('says which file is missing or wrong, and that a pack was written again meanwhile', async () => {
    const opening = (): Promise<unknown> => new PackWalks().open(address, context);
    serve({ 'kits/example-kit/crate.glb': () => undefined });
    await expect(opening()).rejects.toThrow('kits/example-kit/crate.glb: cannot be read');
    serve({ 'levels/cistern/sight.json': () => new TextEncoder().encode('{"format":"other"}') });
    await expect(opening()).rejects.toThrow('levels/cistern/sight.json: format: must be stravel-pack-sight');
    let asked = 0;
    const manifest = readFileSync(join(PACK, 'manifest.json'), 'utf8');
    serve({ 'manifest.json': () => new TextEncoder().encode(manifest + ' '.repeat(asked++)) });
    await expect(opening()).rejects.toMatchObject({ code: 'PACK_CHANGED' });
  });

  it('steps no further where nobody steers', () => {
    expect(() => new PackWalks().step({ heading: [0, 1], frames: 1 })).toThrow('nobody steers');
  });
});
