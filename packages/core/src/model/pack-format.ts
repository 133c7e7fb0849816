/**
 * Versions of a pack's files, by their format. The first number rises when a reader of the version before would go wrong, the
 * second when something is added that it may leave unread.
 */
const PACK_VERSIONS = {
  'stravel-pack': [4, 0],
  'stravel-pack-game': [1, 1],
  'stravel-pack-level': [2, 0],
  'stravel-pack-sight': [2, 0],
  'stravel-pack-cells': [1, 0],
  'stravel-pack-kit': [2, 0],
} as const;
export type PackFormat = keyof typeof PACK_VERSIONS;

/** What a JSON file of a pack begins with. */
export type PackHead = {
  readonly format: PackFormat;
  readonly version: number;
  readonly minor: number;
};

export function packHead(format: PackFormat): PackHead {
  const [version, minor] = PACK_VERSIONS[format];
  return { format, version, minor };
}
