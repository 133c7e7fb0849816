import { MODEL_HEADER, type ModelUpgrades } from '@stravel/core';
import type { Request, RequestHandler } from 'express';

/** Tells every page which version of the model the server speaks. */
export function tellModelVersion({ version }: ModelUpgrades): RequestHandler {
  return (_request, response, next) => {
    response.setHeader(MODEL_HEADER, String(version));
    next();
  };
}

/**
 * The version that a page wrote a request in; the first where it says none.
 * @throws CoreError 'MODEL_NEWER' when this server is older, 'MODEL_VERSION'
 */
export function modelVersionOf(request: Request, upgrades: ModelUpgrades): number {
  const header = request.get(MODEL_HEADER);
  return upgrades.checked(header === undefined ? undefined : Number(header), 'edit');
}
