import { MessageChannel, receiveMessageOnPort } from 'node:worker_threads';
import { BakeCache, createRunContext, createTasks, newRecipe, recipeInputs } from '@stravel/core';
import type { ComputeAnswer } from './protocol';
import { takenSection, type SentSection } from './sent-section';
import { WorkerSide } from './worker-side';

const recipe = newRecipe('burrow', { id: 'r', name: 'Burrow', seed: 'one', isFirst: true });
const reads = recipeInputs(recipe, []);

describe('a worker', () => {
  const { port1, port2 } = new MessageChannel();
  let movedBytes = 0;
  let wake: (answer: ComputeAnswer) => void;
  const worker = new WorkerSide((answer, moved = []) => {
    for (const one of moved) movedBytes += (one as ArrayBuffer).byteLength;
    port1.postMessage(answer, moved as ArrayBuffer[]);
    const arrived = receiveMessageOnPort(port2)?.message as ComputeAnswer;
    if (arrived.type !== 'progress' && arrived.type !== 'key') wake(arrived);
  });
  const ask = (): Promise<ComputeAnswer> => {
    worker.take({ type: 'run', id: 1, task: 'make-section', input: reads, on: [], cancel: undefined });
    return new Promise((resolve) => (wake = resolve));
  };
  afterAll(() => port1.close());

  it('moves what it made to the page, and has it whole for the next who asks', async () => {
    const made = createTasks(new BakeCache(1e6))['make-section'](reads, createRunContext());
    for (let time = 1; time <= 2; time++) {
      const answer = await ask();
      expect(answer).toMatchObject({ type: 'done' });
      if (answer.type !== 'done') return;
      expect(takenSection(answer.result as SentSection)).toEqual(made);
      expect(movedBytes).toBeGreaterThan(time * made.blocks.length * 240);
    }
  });
});
