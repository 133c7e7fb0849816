import { readAddress } from '../read-address';
import type { Desk } from './desk';

/** Begins to fetch the code of the desk that an address names, and of its first page; the router asks for both one after the other. */
export async function fetchAhead(desks: readonly Desk[], address: string): Promise<void> {
  const [id, ...rest] = readAddress(address)?.path ?? [];
  const desk = desks.find((one) => one.id === id);
  try {
    const routes = await desk?.routes();
    const page = routes?.find(({ path }) => path === rest.join('/'));
    await page?.loadComponent?.();
  } catch {
    // The router asks again, and says what fails.
  }
}
