export { CoreError, fromPlainError, toPlainError, type ErrorDetails, type PlainError } from './errors';
export { finding, type Finding, type FindingDesk, type FindingFix, type FindingPlace, type Severity } from './findings';
export { createRunContext, type CancelSignal, type RunContext, type RunContextOptions } from './context/run-context';
export { randomStream, type RandomStream } from './random/random-stream';
export { atan2Degrees, cosDegrees, sinDegrees } from './numeric/trigonometry';

export type { Box3, PlanPoint, TurnDegrees, Vector3 } from './model/vector';
export type { Json } from './model/json';
export { FIELD_TYPES, type Field, type FieldType, type FieldValue } from './model/field';
export { PURPOSES, type Level, type Purpose, type StackEntry } from './model/level';
export type { LevelSet } from './model/level-set';
export type { CollectionSettings } from './model/collection';
export { EMPTY_CONTENT, ITEM_KINDS, STRATUM_ROLES, type Item, type ItemKind, type ItemOfKind, type Stratum, type StratumContent, type StratumRole } from './model/stratum';
export { BLOCK_SIGHTS, type Block, type BlockPlane, type BlockSight } from './model/block';
export type { Placement } from './model/placement';
export { MARKER_KINDS, type Marker, type MarkerKind } from './model/marker';
export type { Divider } from './model/divider';
export type { Kit, Piece, PieceStep } from './model/kit';
export type { Budget, Device } from './model/device';
export type { Acceptance } from './model/acceptance';
export {
  RECORDS_DOCUMENT,
  RECORD_KINDS,
  emptyRecordTables,
  type Editable,
  type EditableKind,
  type EditableOfKind,
  type RecordKind,
  type RecordOfKind,
  type RecordTables,
} from './model/records';

export { RECORD_SCHEMAS } from './schema/record-schemas';
export { checkedRecord, isEditableKind, recordFaults, type RecordFault } from './schema/validate-record';
export { recordJsonSchema } from './schema/json-schema';
export { fileSchemas } from './schema/file-schemas';
export { MOST_OPERATIONS, checkedEdit } from './schema/api/edit-request';

export { invertOperations, operationTarget, type Conflict, type Edit, type LoggedEdit, type Operation } from './edits/operation';
export { equalJson } from './edits/equal-json';
export { applyOperation, valueAt, type JsonRecord } from './edits/apply-operation';
export { applyOperations, putRecord, recordIn, tryOperations, type DocumentState, type EditTrial } from './edits/document-state';
export { emptyUndoStacks, pushEdit, type UndoStacks } from './edits/undo-stacks';
export { checkEditReferences } from './edits/check-references';

export { canonicalJson, parseJson } from './formats/canonical-json';
export { MOST_CHUNK_RECORDS, decodeChunk, decodePlacementChunk, encodeChunk, type PlacementColumns } from './layout/chunk';

export { placePoint, turnMatrix, turnVector, yawOfDirection, type TurnMatrix } from './geometry/turn';
export { blockSurface, boxPlanes, localBounds, prismPlanes, stretchPlanes, wedgePlanes, type BlockSurface } from './geometry/block-solid';

export { compareOrdered, levelsInOrder, ordersBetween, playNumbers, setTree, type Ordered, type SetNode } from './sets/order';
export { freeCode, setFindings } from './sets/set-findings';

export type { CollectionContent } from './model/collection-content';
export { sha256Hex } from './formats/sha256';
export { archiveCollection, archiveJson } from './formats/archive/archive-collection';
export { DEFAULT_ARCHIVE_LIMITS, type ArchiveLimits } from './formats/archive/open-archive';
export { restoreCollection } from './formats/archive/restore-collection';
export { glbNodeNames } from './formats/glb/glb-node-names';
export { writeKitGlb, type KitMesh } from './formats/glb/write-kit-glb';

export { bakeSight, checkBlockCount } from './sight/bake-sight';
export { pocketAt } from './sight/closure';
export { DEFAULT_SIGHT_OPTIONS, SIGHT_VERSION, type HidingBlock, type SightDivider, type SightInput, type SightOptions, type SightSpawn } from './sight/sight-input';
export type { Opening, Pocket, SightFigures, SightResult } from './sight/sight-result';
export { levelSightInput } from './sight/level-sight-input';
export { thingsOfPockets } from './sight/pocket-things';
export type { LevelContent } from './layout/level-content';
export { placementBounds } from './layout/placement-bounds';
export { figuresKey, sightKey, type BakeKind } from './bakes/bake-key';
export { loadTime, type LoadParts, type LoadTime } from './budget/cost-model';
export { figuresInput } from './budget/figures-input';
export { FIGURES_VERSION, levelFigures, type FiguresInput, type FiguresSummary, type LevelFigures, type StratumFigures } from './budget/level-figures';
export type { CostCause, PocketFigures } from './budget/pocket-figures';
export { BUDGET_MEASURES, NEAR_SHARE, budgetFindings, holdAgainst, type BudgetMeasure, type HeldLevel } from './budget/hold-against';
export { BAKE_TASKS, type BakeTaskInput, type BakeTaskName, type BakeTaskResult, type LevelBakeInput, type LevelBakeKeys } from './bakes/run-task';
export { checkedSight } from './schema/checked-sight';
export { BoxTree } from './spatial/box-tree';
