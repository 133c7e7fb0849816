import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FolderTurns } from './folder-turns';

describe('turns on a folder', () => {
  it('go one after the other, also those that another process would take; other folders do not wait', async () => {
    const folder = join(tmpdir(), randomUUID());
    // Each process has its own; they know nothing of each other.
    const [one, other] = [new FolderTurns(), new FolderTurns()];
    const said: string[] = [];
    let end = (): void => undefined;
    let first: Promise<unknown> = Promise.resolve();
    await new Promise<void>((begun) => {
      first = one.take(folder, async () => {
        said.push('first begins');
        begun();
        await new Promise<void>((resolve) => (end = resolve));
        said.push('first ends');
      });
    });
    const second = other.take(folder, () => Promise.resolve(said.push('second')));
    const third = one.take(folder, () => Promise.reject(new Error('no')));
    const fourth = one.take(folder, () => Promise.resolve(said.push('fourth')));
    await other.take(`${folder}-b`, () => Promise.resolve(said.push('elsewhere')));
    expect(said).toEqual(['first begins', 'elsewhere']);
    end();
    await first;
    await expect(third).rejects.toThrow('no');
    await Promise.all([second, fourth]);
    expect(said.slice(2, 3)).toEqual(['first ends']);
    expect(said.slice(3).sort()).toEqual(['fourth', 'second']);
  });
});
