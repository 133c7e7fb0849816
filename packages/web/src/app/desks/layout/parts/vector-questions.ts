import type { Vector3 } from '@stravel/core';
import type { Answers, Question } from '../../../ui/ask-dialog';

const KEYS = ['x', 'y', 'z'];

/** Asks for three lengths in metres. */
export function vectorQuestions(label: string, values: Vector3 = [0, 0, 0]): Question[] {
  return KEYS.map((key, k) => ({ key, label: `${label} ${key.toUpperCase()}, m`, kind: 'number', value: values[k] }));
}

/** What was answered to `vectorQuestions`. */
export function vectorOf(answers: Answers): Vector3 {
  return [Number(answers['x']), Number(answers['y']), Number(answers['z'])];
}
