import { counted } from '@stravel/core';
import type { Finding, PackChoice } from '@stravel/core';
import { CallError } from '../call-error';
import { chosenCollection, withCollections } from '../with-collections';

/** Exit code when a check finds errors. */
const ERRORS_FOUND = 1;

export interface PackOptions {
  readonly all?: boolean;
  /** Keys of levels with commas between them. */
  readonly without?: string;
  readonly collection?: string;
}

/** Holds a collection against the rules of its target and prints every finding. @throws CallError 1 when there are errors */
export async function checkCommand(options: PackOptions): Promise<void> {
  await withCollections(async (access) => {
    const collection = await chosenCollection(access, options.collection);
    const findings = await access.check(collection, choiceOf(options));
    process.stdout.write(findingLines(findings));
    refuseErrors(findings);
  });
}

/** What the options leave in. */
export function choiceOf({ all, without }: PackOptions): PackChoice {
  return {
    withAllPurposes: all === true,
    without: without === undefined ? [] : without.split(',').map((key) => key.trim()),
  };
}

/** One line a finding, errors first. */
export function findingLines(findings: readonly Finding[]): string {
  if (findings.length === 0) return 'no errors, ready to pack\n';
  const rank = { error: 0, warning: 1, note: 2 };
  const sorted = [...findings].sort((a, b) => rank[a.severity] - rank[b.severity] || (a.id < b.id ? -1 : 1));
  return sorted.map(({ severity, code, message }) => `${severity} ${code}: ${message}\n`).join('');
}

export function refuseErrors(findings: readonly Finding[]): void {
  const errors = findings.filter(({ severity }) => severity === 'error').length;
  if (errors > 0) throw new CallError(`the check found ${counted(errors, 'error')}`, ERRORS_FOUND);
}
