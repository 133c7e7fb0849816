import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Answers } from '../../../scripts/example-pack/answers';
import { PackError, RESIDENT, createProgress, createStreamer, openPack, type Pack, type Piece } from './index';

const FOLDER = fileURLToPath(new URL('../../../docs/formats/example-pack/', import.meta.url));
const answers = JSON.parse(readFileSync(join(FOLDER, 'answers.json'), 'utf8')) as Answers;
const read = (path: string): Promise<Uint8Array> => readFile(join(FOLDER, 'pack', path));
const open = (): Promise<Pack> => openPack(read);

/** The same pack with a file that reads otherwise. */
const withFile = (path: string, change: (text: string) => string): Promise<Pack> =>
  openPack(async (wanted) =>
    wanted === path ? new TextEncoder().encode(change(new TextDecoder().decode(await read(wanted)))) : read(wanted),
  );

async function piecesOf(pack: Pack): Promise<Map<string, Piece>> {
  const pieces = new Map<string, Piece>();
  for (const key of pack.levels) {
    const level = await pack.level(key);
    for (const { name } of level.chunks)
      for (const piece of (await level.chunk(name)).placements.pieces) pieces.set(piece.id, piece);
  }
  return pieces;
}

describe('the reader, of the example pack', () => {
  it('finds the pocket of every point, with any hint that is not its own, and what is drawn from there', async () => {
    const pack = await open();
    for (const { level, point, pocket, objects } of answers.sight) {
      const sight = await (await pack.level(level)).sight();
      const found = sight.pocketAt(point);
      expect([level, point, found]).toEqual([level, point, pocket]);
      expect(sight.pocketAt(point, found)).toBe(found);
      const out = new Uint32Array(sight.objects.length);
      const drawn = [...out.subarray(0, sight.drawSet(found, out))];
      expect(drawn.map((one) => sight.objects[one]).sort()).toEqual(objects);
      expect(drawn).toEqual([...drawn].sort((a, b) => a - b));
      if (drawn.length > 0)
        expect(() => sight.drawSet(found, out.subarray(0, drawn.length - 1))).toThrow('do not fit into');
      // What did not fit leaves no mark behind.
      expect(sight.drawSet(found, out)).toBe(drawn.length);
    }
    expect(new Set(answers.sight.map(({ pocket }) => pocket)).size).toBeGreaterThan(5);
  });

  it('draws each piece by the distance at any scale', async () => {
    const pieces = await piecesOf(await open());
    for (const { piece, distance, scale, node } of answers.lods) {
      const found = pieces.get(piece);
      expect([piece, distance, scale, found?.steps[found.lodAt(distance, scale)].node]).toEqual([
        piece,
        distance,
        scale,
        node,
      ]);
    }
  });

  it('loads and unloads along the walk what has to be, where it has to be', async () => {
    const level = await (await open()).level(answers.walk.level);
    const streamer = await createStreamer(level);
    const nameOf = (unit: number): string => streamer.units[unit].chunk ?? streamer.units[unit].paths[0];
    const names = (units: Uint32Array, count: number): string[] => [...units.subarray(0, count)].map(nameOf).sort();
    const steps: unknown[] = [];
    const path = [
      ...Array.from({ length: 401 }, (_one, i) => i / 2),
      ...Array.from({ length: 401 }, (_one, i) => 200 - i / 2),
    ];
    for (const x of path) {
      streamer.update(x, 0.2, 0);
      const loads = names(streamer.asked, streamer.askedCount);
      const unloads = names(streamer.dropped, streamer.droppedCount);
      if (loads.length + unloads.length > 0) steps.push({ at: [x, 0.2, 0], loads, unloads });
    }
    expect(steps).toEqual(answers.walk.steps);
    // What nobody wants is infinitely far; what is wanted lies as far as its cell.
    streamer.units.forEach((_one, unit) =>
      expect(streamer.distance(unit) < Infinity || !streamer.isWanted(unit)).toBe(true),
    );
    const hasCome = new Uint8Array(streamer.units.length).fill(1);
    expect(streamer.isThere(0, hasCome)).toBe(true);
    expect(streamer.isThere(1, hasCome.fill(0, streamer.units.length - 1))).toBe(false);
  });

  it('unlocks by levels, values and codes, also from a saved state', async () => {
    const pack = await open();
    const progress = await createProgress(pack);
    for (const { play, collected, code, unlocked, values } of answers.progress) {
      if (play !== undefined) progress.play(play, collected);
      if (code !== undefined) expect(progress.typeCode(code)).toBe(true);
      expect(progress.unlocked()).toEqual(unlocked);
      for (const [id, value] of Object.entries(values)) expect([id, progress.value(id)]).toEqual([id, value]);
    }
    const again = await createProgress(pack);
    again.restore(JSON.parse(JSON.stringify(progress.state())) as ReturnType<typeof progress.state>);
    expect([again.unlocked(), again.state()]).toEqual([progress.unlocked(), progress.state()]);
    const fresh = await createProgress(pack);
    expect(fresh.typeCode('')).toBe(false);
    expect(() => fresh.play('brine-vault')).toThrow('brine-vault is not open');
    expect(() => fresh.play('cistern', { luck: 1 })).toThrow('game.json: carriedValues: has no luck');
    expect(fresh.state()).toEqual((await createProgress(pack)).state());
    expect(() => fresh.isOpen('moon')).toThrow('game.json: levels: has no moon');
  });

  it('places everything within what the columns promise', async () => {
    const pack = await open();
    for (const { level: key, id, piece, translation, rotation, scale } of answers.placements) {
      const level = await pack.level(key);
      for (const { name } of level.chunks) {
        const { placements } = await level.chunk(name);
        const i = placements.ids.indexOf(id);
        if (i < 0) continue;
        expect(placements.pieces[placements.piece[i]].id).toBe(piece);
        translation.forEach((value, k) =>
          expect(Math.abs(placements.translations[i * 3 + k] - value)).toBeLessThan(0.0006),
        );
        rotation.forEach((value, k) => expect(Math.abs(placements.rotations[i * 4 + k] - value)).toBeLessThan(1e-6));
        scale.forEach((value, k) => expect(Math.abs(placements.scales[i * 3 + k] - value)).toBeLessThan(1e-6));
      }
    }
    const level = await pack.level('cistern');
    const { placements, blocks, geometry } = await level.chunk(RESIDENT);
    expect(answers.placements.every(({ level: key, id }) => key !== 'cistern' || placements.ids.includes(id))).toBe(
      true,
    );
    expect(placements.groups).toContain('cistern-dressing-store');
    expect(level.items('markers').map((marker) => marker.text('kind'))).toEqual(['spawn', 'exit']);
    expect(blocks.length).toBeGreaterThan(5);
    expect((await pack.bytes(geometry ?? '')).subarray(0, 4)).toEqual(Buffer.from('glTF'));
  });

  it('names file and place of what is wrong, and takes a newer minor version', async () => {
    await expect(openPack(() => Promise.reject(new Error('gone')))).rejects.toThrow('manifest.json: cannot be read');
    await expect(withFile('manifest.json', () => '{')).rejects.toThrow('manifest.json: is not JSON');
    await expect(withFile('manifest.json', (text) => text.replace('"version": 4', '"version": 99'))).rejects.toThrow(
      'manifest.json: version: is 99; this reader knows 4',
    );
    await expect(withFile('manifest.json', (text) => text.replace('"minor": 0', '"minor": 7'))).resolves.toBeDefined();
    await expect(withFile('manifest.json', (text) => text.replace(/"edit": \d+/, '"edit": "x"'))).rejects.toThrow(
      'manifest.json: edit: must be a number',
    );
    const pack = await open();
    await expect(pack.level('moon')).rejects.toThrow('there are: cistern long-jetty brine-vault');
    const level = await pack.level('long-jetty');
    await expect(level.chunk('9,9')).rejects.toThrow('has no chunk 9,9');
    const broken = await withFile('levels/long-jetty.json', (text) =>
      text.replace('"columns": {', '"columns": 5, "was": {'),
    );
    await expect(broken.level('long-jetty')).rejects.toThrow(
      /levels\/long-jetty\.json: chunks\.\d+\.columns: must be a table/,
    );
    const lost = await withFile('levels/cistern.json', (text) => text.replace('"piece-crate"', '"piece-moon"'));
    const chunk = (await lost.level('cistern')).chunk(RESIDENT);
    await expect(chunk).rejects.toThrow('places piece-moon, which no kit has');
    await expect(chunk).rejects.toBeInstanceOf(PackError);
    const strange = await withFile('levels/cistern/sight.json', (text) =>
      text.replace(/"visible":\[(\d)/, '"visible":[9999,$1'),
    );
    await expect((await strange.level('cistern')).sight()).rejects.toThrow(
      /sight\.json: pockets\.\d+\.visible: must be below/,
    );
  });
});
