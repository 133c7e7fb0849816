/// <reference lib="webworker" />
import { installPatternEngine } from '@stravel/core';
import { LINEAR_PATTERNS } from '@stravel/core/linear-patterns';
import type { WorkerMessage } from './protocol';
import { WorkerSide } from './worker-side';

installPatternEngine(LINEAR_PATTERNS);
const side = new WorkerSide((answer, moved = []) => postMessage(answer, moved));

addEventListener('message', ({ data }: MessageEvent<WorkerMessage>) => side.take(data));
