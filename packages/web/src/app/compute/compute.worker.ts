/// <reference lib="webworker" />
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import type { WorkerMessage } from './protocol';
import { WorkerSide } from './worker-side';

installLinearPatterns();
const side = new WorkerSide((answer, moved = []) => postMessage(answer, moved));

addEventListener('message', ({ data }: MessageEvent<WorkerMessage>) => side.take(data));
