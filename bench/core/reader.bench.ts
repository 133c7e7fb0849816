import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { createStreamer, openPack } from '@stravel/reader';
import { atMost, timing, type Row } from '../measure';

const FRAMES = 200000;
const ROUNDS = 7;
const PACK = fileURLToPath(new URL('../../../docs/formats/example-pack/pack/', import.meta.url));

/** What the reader does in a frame, and how much it allocates: walks the jetty of the example pack up and down. */
export async function readerBench(): Promise<Row[]> {
  const pack = await openPack((path) => readFile(`${PACK}${path}`));
  const level = await pack.level('long-jetty');
  const [sight, streamer] = [await level.sight(), await createStreamer(level)];
  const { pieces } = (await level.chunk('1,0')).placements;
  const eye = new Float64Array(3);
  const drawn = new Uint32Array(sight.objects.length);
  let pocket = -1;
  let seen = 0;
  const walk = (frames: number): void => {
    for (let frame = 0; frame < frames; frame++) {
      eye[0] = Math.abs(((frame * 0.05) % 400) - 200);
      eye[1] = 1.8;
      streamer.update(eye[0], eye[1], eye[2]);
      pocket = sight.pocketAt(eye, pocket);
      seen += sight.drawSet(pocket, drawn) + pieces[0].lodAt(eye[0], 1);
    }
  };
  // Compiled first: what that takes is not of the frames.
  walk(FRAMES / 4);
  const samples: number[] = [];
  const bytes: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    globalThis.gc?.();
    const before = process.memoryUsage().heapUsed;
    const start = performance.now();
    walk(FRAMES);
    samples.push(((performance.now() - start) / FRAMES) * 1000);
    bytes.push((process.memoryUsage().heapUsed - before) / FRAMES);
  }
  const { medianMs, leastMs, mostMs } = timing(samples);
  return [
    {
      name: 'a frame of the reader',
      value: `${medianMs.toFixed(2)} µs (${leastMs.toFixed(2)} to ${mostMs.toFixed(2)}, ${ROUNDS} rounds, ${seen > 0 ? FRAMES : 0} frames each)`,
    },
    atMost('  bytes allocated in it', timing(bytes).medianMs, 0.5),
  ];
}
