import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { openPack, createStreamer, type Chunk } from '../src/index';

// Walks a level of a pack from its spawn to its exit, and says what a game would load and draw.
// node --import tsx packages/reader/example/walk.ts FOLDER LEVEL
const [folder, key] = process.argv.slice(2);
const say = (text: string): boolean => process.stdout.write(`${text}\n`);

const pack = await openPack((path) => readFile(join(folder, path)));
const level = await pack.level(key);
const sight = await level.sight();
const streamer = await createStreamer(level);
const markers = level.items('markers');
const placeOf = (kind: string): number[] =>
  markers.find((marker) => marker.text('kind') === kind)?.numbers('translation', 3) ?? [0, 0, 0];
const [from, to] = [placeOf('spawn'), placeOf('exit')];

// What is in memory: a game would keep meshes here too.
const hasCome = new Uint8Array(streamer.units.length);
const chunks = new Map<number, Chunk>();
const drawn = new Uint32Array(sight.objects.length);
const eye = [0, 0, 0];
let pocket = -1;

const STEPS = 20;
for (let step = 0; step <= STEPS; step++) {
  for (let k = 0; k < 3; k++) eye[k] = from[k] + ((to[k] - from[k]) * step) / STEPS + (k === 1 ? 1.6 : 0);
  streamer.update(eye[0], eye[1], eye[2]);
  for (let i = 0; i < streamer.droppedCount; i++) {
    hasCome[streamer.dropped[i]] = 0;
    chunks.delete(streamer.dropped[i]);
  }
  for (let i = 0; i < streamer.askedCount; i++) {
    const unit = streamer.asked[i];
    const { chunk, paths } = streamer.units[unit];
    // A game would do this beside its frames, the least distance first.
    if (chunk !== null) chunks.set(unit, await level.chunk(chunk));
    else for (const path of paths) await pack.bytes(path);
    hasCome[unit] = 1;
    say(`load ${chunk ?? paths.join(' ')}`);
  }
  pocket = sight.pocketAt(eye, pocket);
  const seen = new Set(drawn.subarray(0, sight.drawSet(pocket, drawn)));
  const nodes = new Map<string, number>();
  for (const [unit, { placements }] of chunks) {
    if (!streamer.isThere(unit, hasCome)) continue;
    for (let i = 0; i < placements.count; i++) {
      if (!seen.has(sight.objects.indexOf(placements.ids[i]))) continue;
      const at = placements.translations.subarray(i * 3, i * 3 + 3);
      const scale = Math.max(...placements.scales.subarray(i * 3, i * 3 + 3).map(Math.abs));
      const piece = placements.pieces[placements.piece[i]];
      // The nearest point of its bounds would be exact.
      const { node } = piece.steps[piece.lodAt(Math.hypot(at[0] - eye[0], at[1] - eye[1], at[2] - eye[2]), scale)];
      nodes.set(node, (nodes.get(node) ?? 0) + 1);
    }
  }
  const list = [...nodes].map(([node, count]) => `${count} × ${node}`).sort();
  say(`${eye.map((value) => value.toFixed(1)).join(' ')}  pocket ${pocket}  ${list.join(', ') || 'nothing placed'}`);
}
