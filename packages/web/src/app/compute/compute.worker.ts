/// <reference lib="webworker" />
import type { WorkerMessage } from './protocol';
import { WorkerSide } from './worker-side';

const side = new WorkerSide((answer, moved = []) => postMessage(answer, moved));

addEventListener('message', ({ data }: MessageEvent<WorkerMessage>) => side.take(data));
