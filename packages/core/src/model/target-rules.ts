/** A number of a rule: what it is counted in, and may be. Both ends allowed. */
export interface RuleNumber {
  readonly unit: string;
  readonly range: readonly [number, number];
  readonly isWhole: boolean;
  readonly initial: number;
}

/** What a target can ask of a pack, as one reads and sets it. */
export interface TargetRuleField {
  readonly name: string;
  readonly meaning: string;
  /** Whether a new target asks for it. */
  readonly isOn: boolean;
  readonly min?: RuleNumber;
  readonly max?: RuleNumber;
  /** A text: what it is, at first, and how it may be written. */
  readonly text?: { readonly name: string; readonly initial: string };
}

/** Longest text of a rule, characters. */
export const MAX_RULE_TEXT_LENGTH = 500;

const whole = (unit: string, range: readonly [number, number], initial: number): RuleNumber => ({
  unit,
  range,
  isWhole: true,
  initial,
});
const metres = (range: readonly [number, number], initial: number): RuleNumber => ({
  unit: 'm',
  range,
  isWhole: false,
  initial,
});
const factor = (range: readonly [number, number], initial: number): RuleNumber => ({
  unit: '×',
  range,
  isWhole: false,
  initial,
});

/** Every rule of a target but the counts by kind: a new one is a line here and a file in `pack/rules`. */
export const TARGET_RULES = {
  levelKeys: {
    name: 'Keys of levels',
    meaning: 'Files are named by them.',
    isOn: true,
    max: whole('letters', [1, 60], 60),
  },
  pieceNames: {
    name: 'Names of pieces',
    meaning: 'By a pattern, and each only once in the pack.',
    isOn: false,
    text: { name: 'Pattern', initial: '[a-z0-9_]+' },
  },
  pieceTriangles: {
    name: 'Triangles of a piece',
    meaning: 'Of its full LOD.',
    isOn: true,
    max: whole('', [1, 1e9], 1000000),
  },
  pieceMaterials: {
    name: 'Materials of a piece',
    meaning: 'Each is a draw call.',
    isOn: true,
    max: whole('', [1, 1000], 16),
  },
  pieceSize: {
    name: 'Size of a piece',
    meaning: 'Along its longest side.',
    isOn: true,
    min: metres([0, 100000], 0.01),
    max: metres([0.001, 100000], 1000),
  },
  tiling: {
    name: 'Tiling of textures',
    meaning: 'How often a texture repeats over a piece.',
    isOn: false,
    max: factor([1, 100000], 8),
  },
  nodeTransforms: {
    name: 'No transform on nodes',
    meaning: 'Placements are the only transform of a piece.',
    isOn: true,
  },
  textures: {
    name: 'Textures in the file',
    meaning: 'None is missing, and all can be read.',
    isOn: true,
  },
  textureSize: {
    name: 'Size of a texture',
    meaning: 'Along its longer side.',
    isOn: true,
    max: whole('px', [1, 65536], 4096),
  },
  extensions: {
    name: 'glTF extensions',
    meaning: 'Only these, with commas between them; empty allows none.',
    isOn: false,
    text: { name: 'Allowed', initial: 'KHR_texture_transform, KHR_materials_unlit' },
  },
  placementScale: {
    name: 'Scale of placements',
    meaning: 'Along any axis, mirrored or not.',
    isOn: true,
    min: factor([0.001, 1000], 0.01),
    max: factor([0.001, 1000], 100),
  },
  pathSpacing: {
    name: 'Spacing of knots',
    meaning: 'Along a path, from one knot to the next.',
    isOn: false,
    max: metres([0.01, 10000], 10),
  },
  pathKnots: {
    name: 'Knots of a path',
    meaning: 'For games with room for so many.',
    isOn: false,
    max: whole('', [2, 10000], 256),
  },
  groups: {
    name: 'Groups of a level',
    meaning: 'Each level has these, with commas between them; Parent/Group names one within another.',
    isOn: false,
    text: { name: 'Groups', initial: '' },
  },
  grouped: {
    name: 'Objects in groups',
    meaning: 'No object is outside all groups.',
    isOn: false,
  },
} as const satisfies Readonly<Record<string, TargetRuleField>>;

export type TargetRuleId = keyof typeof TARGET_RULES;

/** Most items of a kind in a level, for a kind of which a new target takes any number. */
export const COUNT_NUMBER: RuleNumber = whole('', [0, 10000000], 10000);
