/** Lets work on one folder be done one after the other; work on others goes on meanwhile. */
export class FolderTurns {
  private readonly last = new Map<string, Promise<unknown>>();

  /** @param folder absolute */
  async take<T>(folder: string, work: () => Promise<T>): Promise<T> {
    const before = this.last.get(folder) ?? Promise.resolve();
    // What became of the one before is told to those who asked for it.
    const mine = before.catch(() => undefined).then(work);
    this.last.set(folder, mine);
    try {
      return await mine;
    } finally {
      if (this.last.get(folder) === mine) this.last.delete(folder);
    }
  }
}
