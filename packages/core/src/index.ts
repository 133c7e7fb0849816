export { keyFault, keyFromName } from './fields/key-text';
export {
  NEW_LEVEL_NAME,
  checkKeys,
  completeKeys,
  freeKey,
  isKeyed,
  isPlaceholderKey,
  newKey,
  takenKeys,
  type KeyedKind,
} from './sets/keys';
export { CoreError, errorText, fromPlainError, toPlainError, type ErrorDetails, type PlainError } from './errors';
export {
  FINDING_DESKS,
  SEVERITY_RANKS,
  finding,
  type Finding,
  type FindingDesk,
  type FindingFix,
  type FindingPlace,
  type Severity,
} from './findings';
export {
  createRunContext,
  type BakeName,
  type CancelSignal,
  type RunContext,
  type RunContextOptions,
} from './context/run-context';
export { randomStream, type RandomStream } from './random/random-stream';
export { atan2Degrees, cosDegrees, sinDegrees } from './numeric/trigonometry';

export type { Box3, PlanPoint, TurnDegrees, Vector3 } from './model/vector';
export { isJsonTable, type Json } from './model/json';
export {
  FIELD_FIGURES,
  FIELD_TYPES,
  type Field,
  type FieldFigure,
  type FieldScalar,
  type FieldType,
  type FieldValue,
} from './model/field';
export type { Entry, Register } from './model/register';
export { type CarriedValue, type Gain, type LevelOrder, type UnlockRule } from './model/unlock';
export { PURPOSES, type Level, type Purpose, type StackEntry } from './model/level';
export type { LevelSet } from './model/level-set';
export type { CollectionSettings } from './model/collection';
export { DEFAULT_VIEW, type ViewSettings } from './model/view-settings';
export { STRATUM_ROLES, type Stratum, type StratumRole } from './model/stratum';
export type { Item, ItemKind, ItemOfKind, StratumContent } from './model/items';
export {
  EMPTY_CONTENT,
  ITEMS,
  ITEM_KINDS,
  contentOfKinds,
  contentOfSome,
  groupOf,
  isOptionalField,
  isItemKind,
  isLaidOver,
  itemsOf,
  kindsWith,
  listOf,
  overIdsOf,
  specOf,
} from './items';
export { bytesText, columnUnit, countText, textInUnit, timeText, type ColumnUnit } from './numeric/amount-text';
export { counted } from './counted';
export { byKey, filledTable, heldAt } from './model/by-key';
export { anyItem } from './items/any-item';
export { storedOperations, storedRecord } from './document/stored-record';
export { recordInTables, tablesOfKept, tablesWith, type RecordPut } from './document/record-tables';
export { type AnyItem } from './items/item-spec';
export type { ChangedFields } from './items/place';
export { BLOCK_SIGHTS, type Block, type BlockFace, type BlockPlane, type BlockSight } from './model/block';
export type { Placement } from './model/placement';
export { MARKER_KINDS, type Marker, type MarkerKind } from './model/marker';
export type { Divider } from './model/divider';
export { LINK_EVENTS, type Link, type LinkEvent } from './model/link';
export type { Wall, WallCorner, WallOpening } from './model/wall';
export { PATH_FORMS, type Knot, type Path, type PathForm } from './model/level-path';
export {
  DEFAULT_MOVEMENT,
  MAX_TILE_SIDE,
  SQUARE_MARKS,
  SQUARE_ROLES,
  type MovementRules,
  type SquareCode,
  type SquareMark,
  type SquareRole,
  type TileFloor,
} from './model/tile-floor';
export type { AssemblyUse, UsePatch } from './model/items';
export { MASK_TILE_PIXELS, MAX_MASK_SIDE, maskTileKey, type Mask } from './model/mask';
export { VOLUME_FORMS, type Volume, type VolumeShape } from './model/volume';
export type { Recipe, RecipeKind } from './model/recipe';
export type { Pin } from './model/pin';
export {
  GROUP_COLOURS,
  type Group,
  type GroupColour,
  type GroupTemplate,
  type GroupTemplatePart,
  type SetAside,
} from './model/group';
export { PATCH_CHANGES, patchId, type PatchChange } from './model/patch';
export type { Patch } from './model/items';
export { MAX_CELLS_OF_VOLUME, type CellGrid, type VolumeRule } from './model/cell-grid';
export type { Rehearsal } from './model/rehearsal';
export {
  COLLISION_SHAPES,
  collisionNodeName,
  stepNodeName,
  type CollisionShape,
  type Kit,
  type Piece,
  type PieceCollision,
  type PieceStep,
} from './model/kit';
export { DEFAULT_COLLISION_PATTERN, collisionPatternFault } from './fields/collision-pattern';
export { COLLISIONS } from './detail/collision';
export { kitFloors, type Floors } from './detail/collision/kit-floors';
export { type AddedToKit } from './detail/add-to-kit';
export { type MadeCollision } from './detail/collision/set-collisions';
export type { Budget, Device } from './model/device';
export { DEVICE_LIMITS, DEVICE_SPEEDS, type DeviceField } from './model/device-fields';
export { plainZeros } from './json/plain-zeros';
export { plainJson, plainRecord, plainRecordIfAny } from './json/plain-json';
export { MAX_JSON_DEPTH, isTooDeep } from './json/json-depth';
export { LaidEdits, type LaidDocuments, type ShownRecord, type WaitingOperations } from './document/laid-edits';
export { recordUsers, type RecordUser } from './sets/record-users';
export { STANDARD_DEVICES } from './model/standard-devices';
export { SET_PATH_SEPARATOR, setPathText } from './sets/import-sets';
export { DEFAULT_RANKS, newCollection, renamed, withoutLevels, type NewCollection } from './sets/new-collection';
export type { Acceptance } from './model/acceptance';
export {
  RECORDS_DOCUMENT,
  type Editable,
  type EditableKind,
  type EditableOfKind,
  type RecordKind,
  type RecordOfKind,
  type RecordTables,
} from './model/records';
export { RECORDS, RECORD_KINDS, emptyRecordTables, isRecordKind, recordSpecOf } from './records';

export { SHAPES } from './document/record-shapes';
export { MAX_PATH_KNOTS, MAX_WALL_CORNERS, MAX_WALL_OPENINGS } from './fields/known-fields';
export { EDIT_LINES_TYPE, editOfLines, isLongEdit, linesOfEdit } from './document/edit-lines';
export { checkedRecord, isEditableKind, recordFaults, type RecordFault } from './document/validate-record';
export { recordJsonSchema } from './document/json-schema';
export { packSchemas } from './pack/pack-schemas';
export { fileSchemas } from './archive/file-schemas';
export { MAX_OPERATIONS, checkedEdit } from './document/edit-request';

export {
  invertOperations,
  operationTarget,
  type Conflict,
  type Edit,
  type EditHead,
  type LoggedEdit,
  type Operation,
} from './document/operation';
export { FIRST_MODEL_VERSION, ModelUpgrades } from './upgrades/model-upgrades';
export { MODEL_HEADER, MODEL_VERSION, UPGRADES } from './upgrades';
export type { Upgrade } from './upgrades/upgrade';
export { equalJson } from './document/equal-json';
export { applyOperation, valueAt, type JsonRecord } from './document/apply-operation';
export {
  applyOperations,
  putRecord,
  recordIn,
  TrialRun,
  tryOperations,
  type DocumentState,
  type EditTrial,
} from './document/document-state';
export { restoreOperations, type KindChanges, type RestorePlan } from './document/restore-operations';
export { checkPieceRemovals, removedPieces } from './document/check-piece-removals';
export { emptyUndoStacks, pushEdit, type UndoStacks } from './document/undo-stacks';
export { checkCollectionRecord } from './document/check-collection-record';
export { checkEditReferences } from './document/check-references';
export { checkRemovals } from './sets/check-removals';

export { canonicalJson, jsonOfText, parseJson } from './json/canonical-json';
export { MAX_CHUNK_RECORDS, decodeChunk, decodePlacementChunk, encodeChunk } from './layout/chunk';
export { blockColumnsOf, blocksOfColumns, type BlockColumns } from './items/block/columns';
export { columnsOf, moreOf, placementAt } from './items/placement/columns';
export type { PlacementColumns, PlacementMore } from './model/placement';

export {
  greatestScale,
  isMirrored,
  placePoint,
  turnMatrix,
  turnVector,
  yawOfDirection,
  type TurnMatrix,
} from './geometry/turn';
export { turnQuaternion } from './geometry/turn-quaternion';
export {
  blockSurface,
  boxPlanes,
  localBounds,
  prismPlanes,
  stretchPlanes,
  wedgePlanes,
  type BlockSurface,
} from './geometry/block-solid';

export { levelsInOrder, levelsUnder, ordersBetween, playNumbers, setTree, type SetNode } from './sets/order';
export { compareOrdered, type Ordered } from './model/ordered';
export { setFindings } from './sets/set-findings';
export { codePatternFault } from './fields/code-pattern-fault';
export { codeCount, freeCodes } from './sets/codes';
export { DEFAULT_CODE_PATTERN, LOOK_ALIKES, type CodePattern } from './model/code-pattern';
export { DEFAULT_READINESS, type ReadinessRules } from './model/readiness';
export { readinessFaults, type ReadinessFacts } from './sets/readiness';
export { outliers } from './sets/outliers';
export { BULK_COMMANDS, bulkTexts, type BulkChange, type BulkCommand } from './sets/bulk-change';
export { figureStateIn, levelFigureIn, type LevelFiguresTable } from './sets/level-figure';
export { pictureNames } from './sets/pictures';
export { FORMATS, type FormatId } from './formats';
export { HEAD_BYTES } from './formats/format-spec';
export { acceptOf, chosenFile, fileFault } from './formats/told-files';
export { PICTURE_TYPES, pictureType, type PictureType } from './formats/pictures/picture-type';
export { revertOperations } from './document/revert-operations';
export {
  defaultValues,
  entriesOf,
  fieldsOf,
  registersInOrder,
  valueOf,
  type FilledKind,
  type FilledRecord,
  isEmptyValue,
} from './sets/field-tables';
export {
  fieldFault,
  fieldText,
  linkLookup,
  plainText,
  readFieldText,
  type LinkLookup,
  type ReadValue,
} from './sets/field-value';
export { planFieldChange, type ChangeOutcome, type FieldChange, type ValueChange } from './sets/field-change';
export { linkUses, redirectLinks, type LinkUse } from './sets/links';
export { patternFault } from './fields/pattern';
export { planCells, type CellColumn, type CellPlan, type CellText, type PlannedCell } from './sets/write-cells';
export {
  MATCH_BY,
  planImport,
  tableRowsText,
  type ImportPlan,
  type ImportRowsInput,
  type MatchBy,
} from './sets/import-rows';
export { guessFieldType } from './sets/guess-field-type';
export { readClipboardRows, writeClipboardRows, writeCsv } from './formats/csv/csv';
export {
  CONDITION_TESTS,
  MIN_COLUMN_PIXELS,
  MAX_COLUMN_PIXELS,
  PLAIN_VIEW,
  type ColumnWidth,
  type ConditionTest,
  type TableView,
  type ViewCondition,
  type ViewRules,
  type ViewSort,
} from './model/table-view';
export { applyView, type ViewCell } from './sets/apply-view';
export { ruleText, unlockModel, type FigureOf, type UnlockModel } from './sets/unlock-model';
export { keptOrderGraph } from './sets/kept-order-graph';
export type { OrderGraph } from './sets/order-graph';
export { ORDER_NODE } from './sets/order-node';
export { checkUnlocking } from './sets/unlock-check';
export {
  playFrom,
  playLevel,
  startOfPlay,
  typeCode,
  type PlayBeginning,
  type PlayState,
  type PlayStep,
} from './sets/play-through';

export type { CollectionContent } from './model/collection-content';
export { sha256Hex } from './json/sha256';
export { archiveCollection, archiveFiles, archiveIndex, archiveJson, plainArchive } from './archive/archive-collection';
export { INDEX_PATH } from './archive/archive-files';
export { DEFAULT_ARCHIVE_LIMITS, checkedFiles, isArchivePath, openArchive } from './archive/open-archive';
export { looseEndNotes, type LooseEndNotes } from './archive/loose-ends';
export { restoreCollection, restoreFiles } from './archive/restore-collection';
export { glbNodeNames } from './formats/glb/glb-node-names';
export { writeKitGlb, type KitMesh } from './formats/glb/write-kit-glb';

export { bakeSight, checkBlockCount } from './sight/bake-sight';
export { pocketAt } from './sight/closure';
export {
  DEFAULT_SIGHT_OPTIONS,
  SIGHT_VERSION,
  type HidingBlock,
  type SightDivider,
  type SightInput,
  type SightOptions,
  type SightSpawn,
} from './sight/sight-input';
export { middleOfPoints } from './sight/gap';
export type { Opening, Pocket, SightFigures, SightResult } from './sight/sight-result';
export { levelSightInput } from './sight/level-sight-input';
export { thingsOfPockets } from './sight/pocket-things';
export { levelContent, standingContent, type LevelContent } from './layout/level-content';
export { placedFilesOf } from './layout/placed-columns/placed-files';
export { placedPieces, placementsOf } from './layout/level-placements';
export { patchStates, patchedContent, patchedItem, type PatchState } from './layout/patched-content';
export {
  isPatchable,
  operationsForAll,
  operationsForOne,
  keepPatch,
  pushPatch,
  revertPatch,
  type SharedStratum,
} from './layout/patch-operations';
export {
  MAX_COPIES,
  ALIGN_SIDES,
  alignSteps,
  arrayOffsets,
  distributeSteps,
  varied,
  type AlignSide,
  type ArrayRequest,
  type Axis,
  type VaryRequest,
} from './layout/arrange';
export {
  PLACED_KINDS,
  anchorOf,
  mirroredFields,
  movedFields,
  movedWithin,
  movesInParts,
  turnedFields,
  variedFields,
} from './layout/place-items';
export {
  checkedPlanes,
  cutBlock,
  cylinderPlanes,
  hollowBlock,
  joinBlocks,
  moveFace,
  type BlockShape,
  type ShapedBlock,
} from './layout/blocks/block-edits';
export { planeSolid, type PlaneFace, type PlaneSolid } from './layout/blocks/plane-solid';
export { segmentInVolume } from './layout/volumes/segment-in-volume';
export { isInVolume, volumeBounds, volumePlanes, volumeSurface } from './layout/volumes/volume-surface';
export { type DistanceShade } from './layout/paths/distance-shade';
export { blocksOfWall, detachedBlocks, withWallBlocks } from './layout/walls/wall-blocks';
export {
  fittedOffset,
  newOpening,
  placeOnWall,
  withCorner,
  withoutCorner,
  type PlaceOnWall,
} from './layout/walls/wall-edits';
export { openingsThatDoNotFit } from './layout/walls/wall-findings';
export { wallPlan, type WallPlan, type WallSegment } from './layout/walls/wall-segments';
export { pathPoints, pull } from './layout/paths/path-curve';
export { withKnotIds } from './layout/paths/knot-ids';
export { joinedKnots, offsetKnots, resamplePath, reversedKnots } from './layout/paths/path-edits';
export { distancesFromPath, pathFigures, type PathFigures } from './layout/paths/path-figures';
export { linkFindings } from './layout/links/link-findings';
export { sameContent, type SameContent } from './layout/checks/same-content';
export { type Overlap, type SourcedBlock } from './layout/checks/overlaps';
export {
  ASSEMBLED_KINDS,
  assembliesWithin,
  laidId,
  instantiateOnce,
  withAssemblies,
  wouldHoldItself,
} from './layout/assemblies/lay-assemblies';
export { assemblyOfUse, operationsOnUse, patchesOfUse } from './layout/assemblies/use-patches';
export { bitmapOfMask, tilesOfBitmap, type MaskBitmap } from './layout/masks/mask-bitmap';
export { type MaskRule, type ReadMaskPicture } from './layout/masks/mask-picture';
export { type MaskSurvey } from './layout/masks/survey-mask';
export { type DensityRegion, type PlanDensity } from './layout/overview/plan-density';
export { layoutFindings } from './layout/checks/layout-findings';
export { isSimilar, matchesSelection, type SelectionFacts, type SelectionQuery } from './layout/selection/select-items';
export { HOLE, squaresOfRow } from './items/tile-floor/squares-of-row';
export { readSquare, readSquares, type ReadSquares, type Square, type SquareFault } from './layout/tiles/square-text';
export { type SolvedTiles, type TilePlace } from './layout/tiles/solved-tiles';
export { numberOfSum } from './numeric/sum-text';
export { toMicro, vectorToMicro, wholeTurn } from './numeric/micro';
export { groupChain, groupTree, groupsWithin, withoutAside, type GroupNode } from './layout/groups';
export { placedBounds, placementBounds } from './layout/placement-bounds';
export {
  BAKES,
  BAKED_RECORDS,
  BAKE_KINDS,
  bakeOfPlain,
  bakeSpec,
  bakesOfLevel,
  isBakeKind,
  isBakeResult,
} from './bakes';
export { BakeCache } from './bakes/bake-cache';
export {
  bakeKey,
  keysOfScene,
  nameOf,
  partHashes,
  type KeyedBake,
  type PartHashes,
  type SceneKeys,
} from './bakes/bake-key';
export {
  neededOf,
  type BakeKind,
  type BakeRef,
  type BakeResult,
  type KeyedRef,
  type LevelScene,
  type NeededBake,
} from './bakes/bake-spec';
export { bringBake, type BroughtBake } from './bakes/bring-bake';
export { sectionsOfLevel } from './bakes/section/sections-of-level';
export { sectionsAmong } from './bakes/section/needs-sections';
export { sectionSubject } from './bakes/section/section-subject';
export { loadTime, type LevelLoad, type LoadParts, type LoadTime } from './budget/cost-model';
export { countLevel, type LevelCount, type Tally } from './budget/count-level';
export type { StratumFigures } from './budget/count-strata';
export { FIGURES_VERSION, levelFigures, type BakedFigures, type FiguresSummary } from './budget/level-figures';
export type { FiguresInput } from './budget/figures-scene';
export type { CostCause, PocketFigures } from './budget/pocket-figures';
export {
  BUDGET_MEASURES,
  NEAR_SHARE,
  budgetFindings,
  holdAgainst,
  overCode,
  type BudgetMeasure,
  loadOf,
  type FigureState,
  type HeldFigure,
  type HeldLevel,
  type LevelCosts,
} from './budget/hold-against';
export { finished } from './context/finished';
export { createTasks, type TaskInput, type TaskName, type TaskResult, type Tasks } from './tasks/run-task';
export { countScene } from './tasks/count-scene';
export { BoxTree } from './spatial/box-tree';

export { RECIPES, RECIPE_KINDS, newRecipe, recipeInputs, recipeSpec } from './recipes';
export { parameterList, type NumberParameter, type Parameter } from './recipes/parameters';
export type { RecipeInputs, RecipeSpec, Section, ToldFigure } from './recipes/recipe-spec';
export { carveBurrow, type BurrowOptions, type Cave } from './recipes/burrow/carve-burrow';
export { makeBurrow, rectangleOfWall, type Burrow } from './recipes/burrow/make-burrow';
export {
  cutLevel,
  type Cell,
  type CellContents,
  type CutInput,
  type CutLevel,
  type PlacedThing,
} from './cells/cut-level';
export { recutRules } from './cells/recut-rules';
export { REHEARSAL_VERSION } from './cells/rehearsal-result';
export type {
  FiredLink,
  FootingGap,
  LateCell,
  RehearsalFigures,
  RehearsalResult,
  WalkLoad,
} from './cells/rehearsal-result';
export { chainLike, DEFAULT_CHAIN, type ChainOptions } from './detail/chain-options';
export { simplifyChain, simplifierReady } from './detail/simplify-chain';
export { MeasuredSurface, surfaceOf } from './detail/measure-deviation';
export type { Surface } from './detail/surface';
export type { AddedPiece, AddToKitInput } from './detail/add-to-kit';
export { buildChains, type BuildChainsInput, type BuiltChain, type BuiltChains } from './detail/kit-steps';
export { movedText } from './detail/piece-origin';
export { placeInstead, usesOfPiece, type PieceUses } from './detail/piece-users';
export {
  backFrom,
  collisionOfTaken,
  placeOfTaken,
  replacedTwice,
  takenPieces,
  type TakenPiece,
} from './detail/taken-pieces';
export { newLevelRecord } from './sets/new-level';
export { readScene, type SceneFile } from './formats/glb/read-scene';
export { planScene, type ScenePlan } from './scene/plan-scene';
export { readSceneFiles, type ReadScene, type ReadSceneInput } from './scene/read-scene-files';
export { sceneOperations, type SceneOperationsInput } from './scene/scene-operations';
export { MESH_FORMATS, readPieces, type ReadPiecesInput } from './detail/read-pieces';
export type { ReadPiece, ReadPieces } from './detail/sound-pieces';
export { pieceNameFault } from './detail/rename-pieces';
export type { DroppedFile } from './formats/dropped-file';
export type { ImportFault, ImportReport, ImportedPiece } from './formats/import-report';
export { pixelsAtOneMetre, switchDistances } from './detail/switch-distance';
export {
  plainMaterial,
  type KitMeshes,
  type MeshAttribute,
  type MeshMaterial,
  type MeshOfPiece,
  type MeshPart,
  type MeshTexture,
} from './mesh/kit-meshes';
export { meshBounds, stepCost } from './mesh/mesh-cost';
export { smoothNormals } from './mesh/mesh-normals';
export { readGlb } from './formats/glb/read-glb';
export type { MeshDecoders } from './formats/glb/mesh-decoders';
export { writeGlb } from './formats/glb/write-glb';
export { PLAIN_TARGET, targetOf, targetsOf } from './pack/pack-target';
export { countSetting, countedKinds, ruleSetting, type WholeSetting } from './pack/target-settings';
export { PACK_FOLDER_PATTERN } from './fields/pack-folder';
export {
  COUNT_NUMBER,
  TARGET_RULES,
  type RuleNumber,
  type TargetRuleField,
  type TargetRuleId,
} from './model/target-rules';
export {
  COMPRESSIONS,
  MESH_FILES,
  PLACEMENT_FORMS,
  type Compression,
  type MeshFiles,
  type RuleSetting,
  type Target,
} from './model/target';
export { inspectKit, type KitInspection } from './pack/inspect-kit';
export { checkPack, packQuery, packedLevels, type CheckPackInput, type PackChoice } from './pack/check-pack';
export { gameFile, gamePictures, picturePath } from './pack/game-file';
export { kitLoad } from './pack/kit-load';
export type { KitLoad, KitLoads } from './budget/mesh-files';
export { packKit, type PackFile, type PackKitInput } from './pack/pack-kit';
export { meshLoads, type MeshLoadsInput } from './pack/split-kit';
export { kitPackPath } from './pack/mesh-paths';
export { packLevel, type PackLevelInput } from './pack/pack-level';
export { sightPath } from './pack/level-description';
export { MANIFEST_PATH, manifestPaths, manifestText, type PackManifest, type PackedFile } from './pack/pack-manifest';
