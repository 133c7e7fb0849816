import { readFileSync, readdirSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const PACKAGES = ['core', 'server', 'cli', 'web'] as const;
/** A file that is not there: it adds a member to each of the type maps that the rooms' lists must cover. */
const GHOST = join(ROOT, 'packages/core/src/model/ghost-kinds.ts');

/** The sources of all packages without their specs, checked together with a kind of each sort that nobody has built. */
export interface House {
  readonly program: ts.Program;
  readonly checker: ts.TypeChecker;
  readonly sources: readonly ts.SourceFile[];
  /** Path from the root, with forward slashes. */
  readonly pathOf: (source: ts.SourceFile) => string;
}

/** @param ghosts for each type map that gets a member more: the module that declares it and the member's type */
export function openHouse(
  ghosts: Readonly<Record<string, { readonly module: string; readonly member: string }>>,
): House {
  const base = (JSON.parse(readFileSync(join(ROOT, 'tsconfig.base.json'), 'utf8')) as { compilerOptions: object })
    .compilerOptions;
  const { options } = ts.convertCompilerOptionsFromJson(
    {
      ...base,
      lib: ['ES2022', 'DOM', 'DOM.Iterable'],
      types: ['node'],
      experimentalDecorators: true,
      importHelpers: true,
    },
    ROOT,
  );
  const roots = PACKAGES.flatMap((name) => sourcesIn(join(ROOT, 'packages', name, 'src')));
  const host = ts.createCompilerHost(options);
  const [read, exists] = [host.readFile.bind(host), host.fileExists.bind(host)];
  const getSourceFile = host.getSourceFile.bind(host);
  const ghostText = Object.entries(ghosts)
    .map(
      ([map, { module, member }]) =>
        `declare module '../${module}' { interface ${map} { readonly ${map}Ghost: ${member} } }`,
    )
    .join('\n');
  const text = `export {};\n${ghostText}\n`;
  host.readFile = (path) => (path === GHOST ? text : read(path));
  host.fileExists = (path) => path === GHOST || exists(path);
  host.getSourceFile = (path, version, ...rest) =>
    path === GHOST ? ts.createSourceFile(path, text, version) : getSourceFile(path, version, ...rest);
  const program = ts.createProgram([...roots, GHOST], options, host);
  const pathOf = (source: ts.SourceFile): string => relative(ROOT, source.fileName).split(sep).join('/');
  const sources = program.getSourceFiles().filter((source) => roots.includes(source.fileName));
  return { program, checker: program.getTypeChecker(), sources, pathOf };
}

function sourcesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.ts') && !entry.name.endsWith('.spec.ts'))
    .map((entry) => join(entry.parentPath, entry.name));
}

/** The file that a module name in a source leads to, undefined outside the house. */
export function importsOf({ program, sources }: House): Map<ts.SourceFile, ts.SourceFile[]> {
  const options = program.getCompilerOptions();
  const known = new Set(sources);
  return new Map(
    sources.map((source) => {
      const names: string[] = [];
      ts.forEachChild(source, (node) => {
        if (
          (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) &&
          node.moduleSpecifier &&
          ts.isStringLiteral(node.moduleSpecifier)
        ) {
          names.push(node.moduleSpecifier.text);
        }
      });
      const targets = names.flatMap((name) => {
        const found = ts.resolveModuleName(name, source.fileName, options, ts.sys).resolvedModule;
        const target = found && program.getSourceFile(found.resolvedFileName);
        return target && known.has(target) ? [target] : [];
      });
      return [source, targets];
    }),
  );
}
