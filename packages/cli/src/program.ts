import { Command } from 'commander';
import { readFileSync } from 'node:fs';
import { archiveCommand } from './commands/archive';
import { backupCommand } from './commands/backup';
import { bakeSightCommand } from './commands/bake';
import { checkCommand } from './commands/check';
import { demoCommand } from './commands/demo';
import { importCommand } from './commands/import-scene';
import { indexCommand } from './commands/index-folder';
import { listCommand } from './commands/list';
import { newCommand } from './commands/new';
import { packCommand } from './commands/pack';
import { restoreCommand } from './commands/restore';
import { serveCommand } from './commands/serve';
import { verifyCommand } from './commands/verify';
import { CallError } from './call-error';
import { faultText } from './fault-text';

/** Exit code of a call or an input that is wrong. */
const WRONG_CALL = 2;

/** The shell's commands; each says what was wrong in one line and exits with 2. */
export function buildProgram(): Command {
  const program = new Command('stravel');
  program.description('Levels as data: sets, layout, sections, cells, detail, sight, budget and pack.');
  program.version(version(), '--version', 'print the version');
  // What a command is called with wrongly counts as a wrong call as well; asking for help does not.
  program.exitOverride(({ exitCode }) => process.exit(exitCode === 0 ? 0 : WRONG_CALL));
  const run =
    <P extends unknown[]>(work: (...parameters: P) => Promise<void>) =>
    async (...parameters: P): Promise<void> => {
      try {
        await work(...parameters);
      } catch (error) {
        process.stderr.write(`stravel: ${faultText(error)}\n`);
        process.exitCode = error instanceof CallError ? error.exitCode : WRONG_CALL;
      }
    };
  program.command('demo').description('serve, with the demo collection made if there is none').action(run(demoCommand));
  program.command('serve').description('serve the data folder').action(run(serveCommand));
  program
    .command('new')
    .description('make a collection with one set, one level and the standard devices')
    .argument('<name>', 'its name')
    .option('--ranks <names>', 'what sets are called from the top, separated by commas', 'Part,Chapter')
    .option('--set <name>', 'name of its first set')
    .option('--devices <ids>', 'handheld, living-room-box, desk-tower, separated by commas; none for no device')
    .action(run(newCommand));
  program.command('list').description('list the collections, one per line').action(run(listCommand));
  program
    .command('archive')
    .description('write everything of a collection to one zip, or as plain files into a folder')
    .argument('<file>', 'the zip to write, or a folder: it exists, or ends with /')
    .option('--collection <id>', 'id of the collection; not needed when there is only one')
    .action(run(archiveCommand));
  program
    .command('backup')
    .description('copy the data folder into an empty one, also while a server runs')
    .argument('<folder>', 'an empty or new folder')
    .action(run(backupCommand));
  program
    .command('verify')
    .description('check everything in the data folder; exits with 1 when something is wrong')
    .action(run(verifyCommand));
  program
    .command('restore')
    .description('read a zip or a folder back, as a new collection or into one by an edit that can be undone')
    .argument('<file>', 'the zip or the folder to read')
    .option('--into <id>', 'the collection to restore into')
    .option('--preview', 'with --into: only list what would change')
    .action(run(restoreCommand));
  program
    .command('import')
    .description('say what a glTF scene becomes in a level; with --yes import it, as one edit')
    .argument('<files...>', 'a GLB or glTF with the files that it names, or a zip of them')
    .option('--level <key>', 'key of the level that it goes into')
    .option('--set <name>', 'name or id of a set in which it becomes a new level')
    .option('--unit <metres>', 'metres of one unit of the file', '1')
    .option('--z-up', 'Z is up in the file')
    .option('--yes', 'import it; without, nothing is changed')
    .option('--json', 'print what it becomes as JSON')
    .option('--collection <id>', 'id of the collection; not needed when there is only one')
    .action(run(importCommand));
  program
    .command('index')
    .description('rebuild the index of an archive folder after a hand edit')
    .argument('<folder>', 'a folder that archive wrote')
    .action(run(indexCommand));
  program
    .command('bake')
    .description('compute and keep a bake')
    .command('sight')
    .description('pockets, openings and visible sets of a level')
    .argument('<level>', 'key, name or id of the level')
    .option('--json', 'print everything in the form of docs/formats/sight.md')
    .option('--collection <id>', 'id of the collection; not needed when there is only one')
    .action(run(bakeSightCommand));
  program
    .command('check')
    .description('check a collection against the rules of a target; exits with 1 when it finds errors')
    .option('--target <name>', 'name or id of the target; the first of the collection without it')
    .option('--all', 'include test and tool levels, whatever the target says')
    .option('--without <keys>', 'keys of levels to leave out, separated by commas')
    .option('--json', 'print the findings as JSON')
    .option('--collection <id>', 'id of the collection; not needed when there is only one')
    .action(run(checkCommand));
  program
    .command('pack')
    .description('check, then write the files that the game loads; only those that changed')
    .argument('<folder>', 'an empty folder, or one with an earlier pack')
    .option('--target <name>', 'name or id of the target; the first of the collection without it')
    .option('--all', 'include test and tool levels, whatever the target says')
    .option('--without <keys>', 'keys of levels to leave out, separated by commas')
    .option('--watch', 'pack again after each edit, until interrupted; a server must be running')
    .option('--json', 'print the findings and what was written as JSON')
    .option('--collection <id>', 'id of the collection; not needed when there is only one')
    .action(run(packCommand));
  return program;
}

/** The version of the application; it stands beside what was built. */
function version(): string {
  const packed: unknown = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8'));
  const { version: text } = packed as { readonly version?: unknown };
  return typeof text === 'string' ? text : 'unknown';
}
