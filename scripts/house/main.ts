import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { circles, wrongArrows } from './arrows';
import { casts } from './casts';
import { duplicates } from './duplicates';
import { comparedKinds, kindNames, listedKinds, type Spot } from './kinds';
import { askedAtLists, askedElsewhere } from './new-kind';
import { openHouse } from './program';

// Counts what a new kind of thing would stumble over. The figures only fall: more than stands in figures.json is a fault, fewer is written there
// with --write. --show NAME lists the places.
const FIGURES = fileURLToPath(new URL('./figures.json', import.meta.url));
const AREAS: Readonly<Record<string, RegExp>> = {
  core: /^packages\/core\//,
  server: /^packages\/(server|cli)\//,
  document: /^packages\/web\/src\/app\/document\//,
  plate: /^packages\/web\/src\/app\/plate\//,
  'rest of the page': /./,
};
const MAPS = {
  ItemOfKind: { module: 'model/items', member: '{ readonly id: string; readonly haunts: true }' },
  RecordOfKind: { module: 'model/records', member: '{ readonly id: string; readonly haunts: true }' },
  RecipeOfKind: {
    module: 'model/recipe',
    member:
      "{ readonly id: string; readonly name: string; readonly kind: 'RecipeOfKindGhost'; readonly seed: string; readonly haunts: boolean }",
  },
  BakeOfKind: {
    module: 'bakes/bake-spec',
    member: '{ readonly reads: { readonly haunts: true }; readonly result: { readonly haunts: true } }',
  },
};

const house = openHouse(MAPS);
const kinds = kindNames(house, MAPS);
const found: Readonly<Record<string, readonly Spot[]>> = {
  'compared kinds': comparedKinds(house, kinds),
  'lists of kinds': listedKinds(house, kinds),
  casts: casts(house, kinds),
  'asked by a new kind': askedElsewhere(house),
  circles: circles(house),
  'wrong arrows': wrongArrows(house),
  duplicates: duplicates(house),
};

type Figures = Record<string, Record<string, number>>;
const figures: Figures = Object.fromEntries(Object.entries(found).map(([name, spots]) => [name, byArea(spots)]));
const kept = JSON.parse(readFileSync(FIGURES, 'utf8')) as Figures;
const faults: string[] = [];
let isLess = false;
for (const [name, areas] of Object.entries(figures)) {
  for (const [area, count] of Object.entries(areas)) {
    const limit = kept[name]?.[area];
    if (limit !== undefined && count > limit)
      faults.push(
        `house: ${name} in ${area} are ${count}, must be ${limit} at most (npm run house -- --show "${name}")`,
      );
    if (limit === undefined || count < limit) isLess = true;
  }
}
const show = process.argv.indexOf('--show');
const out = (line: string): void => void process.stdout.write(`${line}\n`);
if (show >= 0) for (const { path, line, what } of found[process.argv[show + 1]] ?? []) out(`${path}:${line}  ${what}`);
for (const [name, areas] of Object.entries(figures))
  out(
    `${name}: ${Object.entries(areas)
      .map(([area, count]) => `${area} ${count}`)
      .join(', ')}`,
  );
out(`a new kind is asked for at: ${askedAtLists(house).join(', ') || 'no list'}`);
if (process.argv.includes('--write') && faults.length === 0)
  writeFileSync(FIGURES, `${JSON.stringify(figures, null, 2)}\n`);
else if (isLess) faults.push('house: some figures have fallen; keep them so with: npm run house -- --write');
for (const fault of faults) out(fault);
process.exitCode = faults.length === 0 ? 0 : 1;

function byArea(spots: readonly Spot[]): Record<string, number> {
  const counts = Object.fromEntries(Object.keys(AREAS).map((area) => [area, 0]));
  for (const { path } of spots) {
    const area = Object.keys(AREAS).find((one) => AREAS[one].test(path)) ?? 'rest of the page';
    counts[area]++;
  }
  return counts;
}
