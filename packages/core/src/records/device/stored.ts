import { mapped } from '../../model/by-key';
import type { Budget } from '../../model/device';
import { DEVICE_LIMITS, DEVICE_SPEEDS, type DeviceField } from '../../model/device-fields';
import { type Field, finite, whole, shape } from '../../fields/field';
import { id, name, order } from '../../fields/known-fields';
import type { StoredRecordSpec } from '../stored-spec';

/** A number for each limit or speed, within its range. */
const figures = <F extends string>(fields: Readonly<Record<F, DeviceField>>): Record<F, Field<number>> =>
  mapped(fields, ({ min, max, isWhole }) => (isWhole ? whole(min, max) : finite(min, max)));

export const STORED_DEVICE: StoredRecordSpec<'device'> = {
  fields: () => ({
    id: id(),
    name: name(),
    order: order(),
    budget: shape<Budget>(figures(DEVICE_LIMITS)),
    ...figures(DEVICE_SPEEDS),
  }),
};
