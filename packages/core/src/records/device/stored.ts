import type { Schema } from 'yup';
import { DEVICE_LIMITS, DEVICE_SPEEDS, type DeviceField } from '../../model/device-fields';
import { finite, id, name, order, shape, whole } from '../../fields/schema-parts';
import type { StoredRecordSpec } from '../stored-spec';

/** A number for each limit or speed, within its range. */
const figures = <F extends string>(fields: Readonly<Record<F, DeviceField>>): Record<F, Schema> =>
  // Each field has the number that was made for it.
  Object.fromEntries(
    Object.entries<DeviceField>(fields).map(([field, { min, max, isWhole }]) => [
      field,
      isWhole ? whole(min, max) : finite(min, max),
    ]),
  ) as Record<F, Schema>;

export const STORED_DEVICE: StoredRecordSpec<'device'> = {
  fields: () => ({
    id: id(),
    name: name(),
    order: order(),
    budget: shape(figures(DEVICE_LIMITS)),
    ...figures(DEVICE_SPEEDS),
  }),
};
