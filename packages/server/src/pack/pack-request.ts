import { errorText, PACK_FOLDER_PATTERN, type PackChoice } from '@stravel/core';
import { array, boolean, number, object, string, tuple } from 'yup';
import { HttpError } from '../http/problem';
import type { ForecastRequest } from './walk-forecasts';

/** What the page asks of a pack. */
export interface PackRequest extends PackChoice {
  /** Name of a folder below the packs of the collection. */
  readonly folder: string;
  readonly leavesSight?: boolean;
}

/** Most levels that one request leaves out. */
const MAX_WITHOUT = 10000;
/** Longest name of a target, or id. */
const MAX_TARGET_LENGTH = 200;
const KEY = /^[a-z0-9-]{1,100}$/;

const shape = object({
  folder: string().required().matches(PACK_FOLDER_PATTERN.matches, PACK_FOLDER_PATTERN.message),
  target: string().max(MAX_TARGET_LENGTH),
  withAllPurposes: boolean(),
  leavesSight: boolean(),
  without: array().of(string().required().matches(KEY, 'must be keys of levels')).max(MAX_WITHOUT),
})
  .noUnknown()
  .strict()
  .required();

/** @throws HttpError 400 naming the field and what it must be */
export function checkedPackRequest(body: unknown): PackRequest {
  try {
    const { folder, target, withAllPurposes, leavesSight, without = [] } = shape.validateSync(body);
    // In one order, so that equal requests make one job.
    return { folder, target, withAllPurposes, leavesSight, without: [...new Set(without)].sort() };
  } catch (error) {
    throw new HttpError(400, 'PACK_REQUEST', `The request to pack cannot be taken: ${errorText(error)}.`);
  }
}

/** Most knots of a way that is forecast. */
const MAX_KNOTS = 20000;
const coordinate = number().required().min(-1e6).max(1e6);
const forecastShape = object({
  level: string().required().matches(KEY, 'level must be the key of a level'),
  target: string().max(MAX_TARGET_LENGTH),
  knots: array()
    .of(tuple([coordinate, coordinate]).required())
    .min(2)
    .max(MAX_KNOTS)
    .required(),
  floorMetres: coordinate,
  speedMetresPerSecond: number().required().moreThan(0).max(1000),
  device: string().required().max(MAX_TARGET_LENGTH),
})
  .noUnknown()
  .strict()
  .required();

/** @throws HttpError 400 naming the field and what it must be */
export function checkedForecastRequest(body: unknown): ForecastRequest {
  try {
    return forecastShape.validateSync(body);
  } catch (error) {
    throw new HttpError(400, 'WALK_REQUEST', `The walk cannot be forecast: ${errorText(error)}.`);
  }
}

/** Name of a folder of the page's packs. @throws HttpError 404 */
export function checkedPackFolder(name: string): string {
  if (!PACK_FOLDER_PATTERN.matches.test(name)) throw new HttpError(404, 'PACK_MISSING', `There is no pack ${name}.`);
  return name;
}

/** What an address asks to check. @throws HttpError 400 */
export function choiceFromAddress(query: Readonly<Record<string, unknown>>): PackChoice {
  const { target, all } = query;
  if (target !== undefined && (typeof target !== 'string' || target.length > MAX_TARGET_LENGTH))
    throw new HttpError(400, 'PACK_REQUEST', `A target is named by at most ${MAX_TARGET_LENGTH} characters.`);
  return {
    target,
    withAllPurposes: all === undefined ? undefined : all === 'yes',
    without: keysFromAddress(query['without']),
  };
}

/** Keys from an address, with commas between them. @throws HttpError 400 */
function keysFromAddress(text: unknown): string[] {
  if (text === undefined || text === '') return [];
  const keys = typeof text === 'string' ? text.split(',') : [];
  if (keys.length === 0 || keys.length > MAX_WITHOUT || !keys.every((key) => KEY.test(key)))
    throw new HttpError(400, 'PACK_REQUEST', 'Levels to leave out must be keys, separated by commas.');
  return keys;
}
