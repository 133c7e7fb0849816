import { counted } from '@stravel/core';
import { print } from '../print';
import { chosenCollection, withCollections } from '../with-collections';

/** Bakes the sight of one level, named by id or by name, and prints what was found. */
export async function bakeSightCommand(level: string, options: { json?: boolean; collection?: string }): Promise<void> {
  await withCollections(async (access) => {
    const collection = await chosenCollection(access, options.collection);
    const { sight, figures } = await access.bake(collection, level);
    if (options.json) {
      await print(`${JSON.stringify({ level, ...sight })}\n`);
      return;
    }
    const worst = figures.worst.at(0);
    const { pockets, reachedPockets, openings, visiblePairs } = sight.figures;
    process.stdout.write(
      [
        `${level}: ${sight.closed ? 'closed' : sight.wayOut ? 'open to the outside' : 'nothing blocks the view'}, ${reachedPockets} of ${pockets} pockets reached, ${counted(openings, 'opening')}, ${counted(visiblePairs, 'visible pair')}`,
        worst
          ? `worst pocket ${worst.pocket + 1} at ${worst.middle.map((v) => v.toFixed(1)).join(', ')}: ${counted(worst.triangles, 'triangle')}, ${counted(worst.drawCalls, 'draw call')}, ${counted(worst.things, 'object')}`
          : 'nothing is drawn',
        ...sight.findings.map(({ severity, message }) => `${severity}: ${message}`),
      ].join('\n') + '\n',
    );
  });
}
