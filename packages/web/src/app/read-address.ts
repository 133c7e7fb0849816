/** What an address names. */
export interface ReadAddress {
  /** Id of a collection. */
  readonly collection: string;
  /** Within the collection, part by part. */
  readonly path: readonly string[];
}

/** Reads the path of an address; undefined outside of every collection. */
export function readAddress(pathname: string): ReadAddress | undefined {
  const [start, collection, ...path] = pathname.split('/').slice(1);
  return start === 'c' && collection ? { collection, path } : undefined;
}
