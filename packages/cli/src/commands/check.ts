import { counted, SEVERITY_RANKS } from '@stravel/core';
import type { Finding, PackChoice } from '@stravel/core';
import { CallError } from '../call-error';
import { print } from '../print';
import { chosenCollection, withCollections } from '../with-collections';

/** Exit code when a check finds errors. */
const ERRORS_FOUND = 1;

export interface PackOptions {
  readonly all?: boolean;
  /** Name or id of a target. */
  readonly target?: string;
  /** Keys of levels with commas between them. */
  readonly without?: string;
  readonly collection?: string;
  readonly json?: boolean;
}

/** Checks a collection against the rules of a target and prints every finding. @throws CallError 1 when there are errors */
export async function checkCommand(options: PackOptions): Promise<void> {
  await withCollections(async (access) => {
    const collection = await chosenCollection(access, options.collection);
    const findings = errorsFirst(await access.check(collection, choiceOf(options)));
    await print(options.json ? `${JSON.stringify({ findings })}\n` : findingLines(findings));
    refuseErrors(findings);
  });
}

/** What the options leave in. */
export function choiceOf({ all, target, without }: PackOptions): PackChoice {
  return {
    ...(target === undefined ? {} : { target }),
    ...(all === true ? { withAllPurposes: true } : {}),
    without: without === undefined ? [] : without.split(',').map((key) => key.trim()),
  };
}

export function errorsFirst(findings: readonly Finding[]): Finding[] {
  return [...findings].sort(
    (a, b) => SEVERITY_RANKS[a.severity] - SEVERITY_RANKS[b.severity] || (a.id < b.id ? -1 : 1),
  );
}

/** One line a finding. */
export function findingLines(findings: readonly Finding[]): string {
  if (findings.length === 0) return 'no errors, ready to pack\n';
  return findings.map(({ severity, code, message }) => `${severity} ${code}: ${message}\n`).join('');
}

export function refuseErrors(findings: readonly Finding[]): void {
  const errors = findings.filter(({ severity }) => severity === 'error').length;
  if (errors > 0) throw new CallError(`the check found ${counted(errors, 'error')}`, ERRORS_FOUND);
}
