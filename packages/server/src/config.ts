import { existsSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Where and how one server runs. */
export interface ServerConfig {
  readonly host: string;
  readonly port: number;
  /** Folder of the database, the bakes and the assets. */
  readonly dataFolder: string;
  /** Folder of the built page; undefined serves the API alone. */
  readonly webFolder: string | undefined;
  readonly logLevel: string;
}

/**
 * Reads the environment: PORT (1 to 65535, default 4310; 0 picks a free one), STRAVEL_DATA (default ./data),
 * STRAVEL_WEB, STRAVEL_LOG (default info).
 * @throws Error naming the variable, its value and what it must be
 */
export function readConfig(environment: NodeJS.ProcessEnv): ServerConfig {
  const portText = environment['PORT'] ?? '4310';
  const port = Number(portText);
  if (!/^\d+$/.test(portText) || port > 65535) {
    throw new Error(`PORT must be a whole number from 0 to 65535, is "${portText}"`);
  }
  const webFolder = resolve(
    environment['STRAVEL_WEB'] ?? join(dirname(fileURLToPath(import.meta.url)), '../../web/dist/browser'),
  );
  return {
    host: '127.0.0.1',
    port,
    dataFolder: resolve(environment['STRAVEL_DATA'] ?? 'data'),
    webFolder: existsSync(join(webFolder, 'index.html')) ? webFolder : undefined,
    logLevel: environment['STRAVEL_LOG'] ?? 'info',
  };
}
