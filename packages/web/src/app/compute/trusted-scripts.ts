/** What browsers that know trusted types have, as far as it is used; the compiler's own types lack it. */
interface TrustedTypePolicies {
  createPolicy(name: 'default', rules: { createScriptURL(url: string): string }): unknown;
}

/** Scripts of workers, as the build names them. */
const WORKER_SCRIPT = /^\/worker-[A-Z0-9]+\.js$/;

/**
 * Whether a script may be run: one of the page's own workers, from the page's own server.
 * @param page address of the page
 */
export function isWorkerScript(url: string, page: string): boolean {
  const { origin, pathname } = new URL(url, page);
  return origin === new URL(page).origin && WORKER_SCRIPT.test(pathname);
}

/**
 * Lets the page start its workers where nothing else may become a script (server: `require-trusted-types-for`). The policy is the default
 * one, as the build finds workers only where their address is handed over untouched.
 */
export function trustWorkerScripts(): void {
  const policies = (globalThis as { readonly trustedTypes?: TrustedTypePolicies }).trustedTypes;
  policies?.createPolicy('default', {
    createScriptURL: (url) => {
      if (!isWorkerScript(url, location.href)) throw new TypeError(`${url} is no script of this page`);
      return url;
    },
  });
}
