/** The result of work that may pause, done without any pause. */
export function finished<T>(steps: Generator<void, T>): T {
  let step = steps.next();
  while (step.done !== true) step = steps.next();
  return step.value;
}
