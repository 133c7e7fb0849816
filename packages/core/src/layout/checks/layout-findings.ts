import type { Finding } from '../../findings';
import type { LevelContent } from '../level-content';
import { linkFindings } from '../links/link-findings';
import { sameContentFindings } from './same-content';

/** What is wrong with a level as it was laid out. */
export function layoutFindings(content: LevelContent): Finding[] {
  return [...linkFindings(content), ...sameContentFindings(content)];
}
