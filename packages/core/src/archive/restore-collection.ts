import { recordInTables } from '../document/record-tables';
import { plainRecord } from '../json/plain-json';
import { checkEditReferences } from '../document/check-references';
import type { JsonRecord } from '../document/apply-operation';
import { CoreError } from '../errors';
import type { CollectionContent } from '../model/collection-content';
import { isJsonList, isJsonTable, type Json } from '../model/json';
import {
  RECORDS_DOCUMENT,
  type EditableKind,
  type RecordKind,
  type RecordOfKind,
  type RecordTables,
} from '../model/records';
import { RECORD_KINDS, emptyRecordTables, isRecordKind } from '../records';
import { ITEM_KINDS, contentOfKinds, kindsWith, listOf, overIdsOf } from '../items';
import type { IdTarget } from '../items/ids';
import type { StratumContent } from '../model/items';
import { checkedRecord } from '../document/validate-record';
import { checkKeys } from '../sets/keys';
import { UPGRADES } from '../upgrades';
import { parseJson } from '../json/canonical-json';
import { glbNodeNames } from '../formats/glb/glb-node-names';
import { PICTURE_TYPES, pictureType } from '../formats/pictures/picture-type';
import { sha256Hex } from '../json/sha256';
import {
  ARCHIVE_VERSION,
  KIT_FORMAT,
  LEVEL_FORMAT,
  STRATUM_FORMAT,
  TABLE_FORMAT,
  TABLE_PATHS,
  PICTURES_FOLDER,
  kitMeshPath,
  picturePath,
} from './archive-files';
import type { ZipLimits } from '../formats/zip/unpack-zip';
import { openArchive, text } from './open-archive';
import { meshPathOf, upgradeFiles } from './upgrade-files';

/**
 * Reads an archive back. Every record is checked; the first fault ends it, so that nothing half-read is ever kept.
 * @throws CoreError 'ARCHIVE_*', 'RECORD_INVALID', 'EDIT_REFERENCE' or 'GLB_*', naming the file and what was wrong
 */
export function restoreCollection(bytes: Uint8Array, limits?: ZipLimits): CollectionContent {
  return restoreFiles(openArchive(bytes, limits));
}

/** The same from the files of an archive, without its index. @throws CoreError as `restoreCollection` does */
export function restoreFiles(files: ReadonlyMap<string, Uint8Array>): CollectionContent {
  const content: CollectionContent = { records: emptyRecordTables(), strata: new Map(), assets: new Map() };
  const places: Places = new Map();
  const jsons = upgradeFiles(
    [...files]
      .filter(([path]) => path.endsWith('.json'))
      .map(([path, file]) => inFile(path, () => ({ path, file: knownTable(parseJson(text(file, path), path)) }))),
  );
  for (const { path, file } of jsons) inFile(path, () => readJsonFile(path, file, content, places));
  const kitOfMesh = new Map(
    jsons
      .filter(({ file }) => file['format'] === KIT_FORMAT)
      .map((one) => [meshPathOf(one), (one.file['kit'] as { readonly id: string }).id]),
  );
  for (const [path, file] of files) {
    if (path.endsWith('.glb')) inFile(path, () => readMesh(kitOfMesh.get(path), file, content));
    else if (path.startsWith(PICTURES_FOLDER)) inFile(path, () => readPicture(path, file, content));
  }
  checkWhole(content, places);
  return content;
}

/** A file of a version that is read. @throws CoreError 'ARCHIVE_NEWER' */
function knownTable(json: Json): { readonly [key: string]: Json } {
  const file = asTable(json);
  const version = file['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1 || version > ARCHIVE_VERSION) {
    throw new CoreError(
      'ARCHIVE_NEWER',
      `its version is ${JSON.stringify(version)}, this Stravel reads 1 to ${ARCHIVE_VERSION}`,
    );
  }
  return file;
}

/** File of each record, by kind and id, so that what is found wrong with it later names the file. */
type Places = Map<string, string>;

function readJsonFile(
  path: string,
  file: { readonly [key: string]: Json },
  content: CollectionContent,
  places: Places,
): void {
  const model = UPGRADES.checked(file['model'], path);
  const add = (kind: RecordKind, value: Json): void =>
    void places.set(`${kind} ${addRecord(content, kind, upgraded(kind, value, model))}`, path);
  const stratum = (entry: { readonly [key: string]: Json }): void => {
    add('stratum', entry['stratum']);
    addContent(content, entry, model);
  };
  switch (file['format']) {
    case TABLE_FORMAT: {
      const { kind } = file;
      if (typeof kind !== 'string' || !isRecordKind(kind) || !TABLE_PATHS.has(kind))
        throw new CoreError('ARCHIVE_FILE', `its kind ${JSON.stringify(kind)} has no table`);
      for (const row of asList(file['rows'], 'rows')) add(kind, row);
      break;
    }
    case LEVEL_FORMAT:
      add('level', file['level']);
      for (const entry of asList(file['strata'], 'strata')) stratum(asTable(entry));
      break;
    case STRATUM_FORMAT:
      stratum(file);
      break;
    case KIT_FORMAT:
      add('kit', file['kit']);
      for (const piece of asList(file['pieces'], 'pieces')) add('piece', piece);
      break;
    default:
      throw new CoreError(
        'ARCHIVE_FILE',
        `its format ${JSON.stringify(file['format'])} is not one that ${path} can have`,
      );
  }
}

function addRecord<K extends RecordKind>(content: CollectionContent, kind: K, value: unknown): string {
  const record = checkedRecord(kind, value);
  const table: Record<string, RecordOfKind[K]> = content.records[kind];
  if (Object.hasOwn(table, record.id))
    throw new CoreError('ARCHIVE_FILE', `the ${kind} ${record.id} is in the archive twice`);
  table[record.id] = record;
  return record.id;
}

/** A record as the newest version has it; what is no record is told by its check. */
function upgraded(kind: EditableKind, value: Json, model: number): Json {
  return isJsonTable(value) ? UPGRADES.record(kind, value, model) : value;
}

function addContent(content: CollectionContent, entry: { readonly [key: string]: Json }, model: number): void {
  const id = (entry['stratum'] as { id: string }).id;
  const items = asTable(entry['content']);
  const unknown = Object.keys(items).find((kind) => !(ITEM_KINDS as readonly string[]).includes(kind));
  if (unknown !== undefined)
    throw new CoreError(
      'ARCHIVE_FILE',
      `the stratum ${id} holds “${unknown}”, which this Stravel does not know; open it with the Stravel that wrote it`,
    );
  const read = contentOfKinds((kind) => {
    const seen = new Set<string>();
    // Kinds that came after the version that wrote the file are not in it.
    return asList(items[kind] ?? [], `content.${kind}`).map((value) => {
      const item = checkedRecord(kind, upgraded(kind, value, model));
      if (seen.has(item.id))
        throw new CoreError('ARCHIVE_FILE', `the ${kind} ${item.id} is in the stratum ${id} twice`);
      seen.add(item.id);
      return item;
    });
  });
  content.strata.set(id, read);
}

function readMesh(kitId: string | undefined, file: Uint8Array, content: CollectionContent): void {
  const kit = kitId === undefined ? undefined : content.records.kit[kitId];
  if (!kit) throw new CoreError('ARCHIVE_FILE', 'there is no kit for it');
  const hash = sha256Hex(file);
  if (hash !== kit.mesh) throw new CoreError('ARCHIVE_FILE', `its SHA-256 is ${hash}, the kit says ${kit.mesh}`);
  const names = new Set(glbNodeNames(file));
  for (const piece of Object.values(content.records.piece)) {
    if (piece.kit === kit.id && !names.has(piece.name)) {
      throw new CoreError('ARCHIVE_FILE', `it has no mesh named ${piece.name}, as the piece ${piece.id} needs`);
    }
  }
  content.assets.set(hash, file);
}

function readPicture(path: string, file: Uint8Array, content: CollectionContent): void {
  const type = pictureType(file);
  if (!type) throw new CoreError('ARCHIVE_FILE', 'it is not a picture that Stravel reads: PNG, JPEG or WebP');
  const hash = sha256Hex(file);
  if (path !== picturePath(hash, PICTURE_TYPES[type]))
    throw new CoreError(
      'ARCHIVE_FILE',
      `its SHA-256 is ${hash}; it must be named by it, ending with .${PICTURE_TYPES[type]}`,
    );
  content.assets.set(hash, file);
}

function checkWhole(content: CollectionContent, places: Places): void {
  const { records } = content;
  if (Object.keys(records.collection).length !== 1) {
    throw new CoreError(
      'ARCHIVE_FILE',
      `archive: collection.json must hold one collection, holds ${Object.keys(records.collection).length}`,
    );
  }
  for (const kit of Object.values(records.kit)) {
    if (!content.assets.has(kit.mesh))
      throw new CoreError('ARCHIVE_FILE', `archive: ${kitMeshPath(kit.key)} is missing`);
  }
  const find = (kind: EditableKind, id: string): JsonRecord | undefined => recordInTables(records, kind, id);
  const all = RECORD_KINDS.flatMap((kind) =>
    Object.values<RecordOfKind[RecordKind]>(records[kind]).map((record) => ({
      document: RECORDS_DOCUMENT,
      kind,
      id: record.id,
      record: plainRecord(record),
    })),
  );
  for (const one of all)
    inFile(places.get(`${one.kind} ${one.id}`) ?? 'archive', () => checkEditReferences([one], find));
  checkKeys(all, () => []);
  for (const [document, items] of content.strata)
    inFile(places.get(`stratum ${document}`) ?? 'archive', () => checkPieces(items, records.piece));
}

const PIECE: IdTarget = 'piece';

/** Checks that the pieces of a stratum are there. Other ends within strata may be loose: `looseEnds` tells them. */
function checkPieces(content: StratumContent, pieces: RecordTables['piece']): void {
  for (const kind of kindsWith('pieces')) {
    for (const item of listOf(content, kind)) {
      overIdsOf(kind, item, (id, { to, field, isStrict }) => {
        if (to === PIECE && isStrict && !field.startsWith('patches.') && !Object.hasOwn(pieces, id))
          throw new CoreError(
            'EDIT_REFERENCE',
            `archive: ${kind} ${item.id} points at the piece ${id}, which does not exist`,
            { kind: PIECE, id },
          );
        return id;
      });
    }
  }
}

function inFile<T>(path: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    // Readers of JSON name the file themselves.
    const message = error.message.startsWith(`${path}: `) ? error.message : `${path}: ${error.message}`;
    throw new CoreError(error.code, message, { ...error.details, path }, { cause: error });
  }
}

function asTable(json: Json | undefined): { readonly [key: string]: Json } {
  if (typeof json !== 'object' || json === null || Array.isArray(json))
    throw new CoreError('ARCHIVE_FILE', 'must hold a table');
  return json as { readonly [key: string]: Json };
}

function asList(json: Json | undefined, name: string): readonly Json[] {
  if (!isJsonList(json)) throw new CoreError('ARCHIVE_FILE', `${name} must be a list`);
  return json;
}
