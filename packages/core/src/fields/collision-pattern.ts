/** Stands in a pattern for the name of the piece. */
const NAME = '{name}';
/** Stands at the end of a pattern for any ending. */
const ANY = '*';
const MAX_PATTERN_LENGTH = 60;
/** A name with the fixed part again and again is looked at from its end so often: files of others may be full of them. */
const MAX_OWNERS = 8;

/** How meshes are named that are the collision of another, unless one says otherwise: 'crate_collision', 'crate_collision2'. */
export const DEFAULT_COLLISION_PATTERN = '{name}_collision*';

/** What is wrong with a pattern, in a sentence; '' when nothing is. */
export function collisionPatternFault(pattern: string): string {
  if (pattern.length > MAX_PATTERN_LENGTH)
    return `A pattern has at most ${MAX_PATTERN_LENGTH} characters; this one has ${pattern.length}.`;
  if (pattern.split(NAME).length !== 2) return `A pattern has ${NAME} once, where the name of the piece stands.`;
  if (plain(pattern).includes(ANY))
    return `${ANY} stands for any ending: it can only come last, and not right after ${NAME}.`;
  if (plain(pattern) === NAME)
    return `A pattern needs something beside ${NAME}, or each mesh would be its own collision.`;
  return '';
}

/** A pattern without the sign for any ending, where that stands in its place. */
function plain(pattern: string): string {
  return pattern.endsWith(ANY) && !pattern.endsWith(NAME + ANY) ? pattern.slice(0, -ANY.length) : pattern;
}

/**
 * The names that a piece may have whose collision a mesh is, eight at most, the longest first; none where the mesh is not named so.
 * @param pattern without a fault
 */
export function collisionOwners(pattern: string, mesh: string): string[] {
  const fixed = plain(pattern);
  const [before, after] = fixed.split(NAME);
  if (!mesh.startsWith(before)) return [];
  const rest = mesh.slice(before.length);
  if (fixed === pattern)
    return rest.endsWith(after) && rest.length > after.length ? [rest.slice(0, rest.length - after.length)] : [];
  const owners: string[] = [];
  for (let at = rest.lastIndexOf(after); at > 0 && owners.length < MAX_OWNERS; at = rest.lastIndexOf(after, at - 1))
    owners.push(rest.slice(0, at));
  return owners;
}
