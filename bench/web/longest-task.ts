import type { Page } from '@playwright/test';

/** Milliseconds of the longest task on the main thread while something is done, from the browser's own trace. */
export async function longestTask(page: Page, act: () => Promise<void>): Promise<number> {
  const browser = page.context().browser();
  if (!browser) throw new Error('the page has no browser');
  await browser.startTracing(page, {
    categories: ['toplevel', 'disabled-by-default-devtools.timeline', 'devtools.timeline'],
  });
  await act();
  const trace = JSON.parse((await browser.stopTracing()).toString('utf8')) as {
    traceEvents: { name: string; ph: string; dur?: number; pid: number; tid: number; args?: { name?: string } }[];
  };
  const mains = new Set(
    trace.traceEvents
      .filter(({ name, args }) => name === 'thread_name' && args?.name === 'CrRendererMain')
      .map(({ pid, tid }) => `${pid} ${tid}`),
  );
  const tasks = trace.traceEvents.filter(
    ({ name, ph, pid, tid }) =>
      ph === 'X' && (name === 'RunTask' || name === 'ThreadControllerImpl::RunTask') && mains.has(`${pid} ${tid}`),
  );
  if (tasks.length === 0) throw new Error('the trace holds no tasks of the page');
  return tasks.reduce((most, { dur }) => Math.max(most, (dur ?? 0) / 1000), 0);
}
