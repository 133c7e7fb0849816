import type { Routes } from '@angular/router';
import type { Desk } from './desk';
import { fetchAhead } from './fetch-ahead';

/** Says what was fetched for an address. */
async function fetched(address: string, fails = false): Promise<string[]> {
  const asked: string[] = [];
  const page = (path: string): Routes[number] => ({
    path,
    loadComponent: () => (
      asked.push(`page '${path}'`),
      fails ? Promise.reject(new Error('gone')) : Promise.resolve(Object)
    ),
  });
  const desk = (id: string, routes: Routes): Desk =>
    ({ id, routes: () => (asked.push(id), Promise.resolve(routes)) }) as unknown as Desk;
  await fetchAhead([desk('sets', [page(''), page('order')]), desk('sight', [{ matcher: () => null }])], address);
  return asked;
}

describe('what an address needs', () => {
  it.each([
    ['/c/cinderbrine/sets', ['sets', "page ''"]],
    ['/c/cinderbrine/sets/order', ['sets', "page 'order'"]],
    ['/c/cinderbrine/sets/register/moods', ['sets']],
    ['/c/cinderbrine/sight/hall', ['sight']],
    ['/c/cinderbrine/findings', []],
    ['/c/cinderbrine', []],
    ['/', []],
  ])('is fetched ahead: %s', async (address, expected) => {
    expect(await fetched(address)).toEqual(expected);
  });

  it('is left to the router where it fails', async () => {
    expect(await fetched('/c/cinderbrine/sets', true)).toEqual(['sets', "page ''"]);
  });
});
