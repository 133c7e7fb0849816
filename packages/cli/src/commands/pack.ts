import { counted } from '@stravel/core';
import { resolve } from 'node:path';
import { print } from '../print';
import { chosenCollection, withCollections } from '../with-collections';
import { watchPack } from './watch-pack';
import { choiceOf, errorsFirst, findingLines, refuseErrors, type PackOptions } from './check';

/** Checks a collection, then writes it into a folder for the game; files that did not change stay as they are. */
export async function packCommand(folder: string, options: PackOptions & { readonly watch?: boolean }): Promise<void> {
  await withCollections(async (access) => {
    const collection = await chosenCollection(access, options.collection);
    const choice = choiceOf(options);
    if (options.watch) {
      const asJson = options.json === true;
      await watchPack(access, { collection, folder: resolve(folder), choice, asJson }, interrupted());
      return;
    }
    const findings = errorsFirst(await access.check(collection, choice));
    const isRefused = findings.some(({ severity }) => severity === 'error');
    if (options.json && isRefused) await print(`${JSON.stringify({ findings })}\n`);
    if (!options.json && findings.length > 0) await print(findingLines(findings));
    refuseErrors(findings);
    const packed = await access.pack(collection, resolve(folder), choice);
    if (options.json) {
      await print(`${JSON.stringify({ findings, ...packed })}\n`);
      return;
    }
    const { levels, kits, bytes, edit, written, unchanged, removed } = packed;
    await print(
      `${counted(levels, 'level')} and ${counted(kits, 'kit')} are in ${folder}, as of edit ${edit}, ${bytes} bytes: ${counted(written.length, 'file')} written, ${unchanged} unchanged, ${removed.length} removed\n`,
    );
  });
}

/** Given when the person ends the command. */
function interrupted(): AbortSignal {
  const end = new AbortController();
  for (const name of ['SIGINT', 'SIGTERM'] as const) process.once(name, () => end.abort());
  return end.signal;
}
