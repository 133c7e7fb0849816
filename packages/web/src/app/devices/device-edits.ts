import {
  RECORDS_DOCUMENT,
  STANDARD_DEVICES,
  compareOrdered,
  heldAt,
  ordersBetween,
  plainJson,
  recordUsers,
  type Device,
  type Operation,
  type RecordTables,
} from '@stravel/core';
import { freeName } from '../edits/free-name';
import { create, newId, remove, setRecordField } from '../edits/operations';

type Tables = Pick<RecordTables, 'device'>;

/** Devices in order. */
export function devicesInOrder(tables: Tables): Device[] {
  return Object.values(tables.device).sort(compareOrdered);
}

/** A device like another, behind all others. */
export function copyOfDevice(
  tables: Tables,
  original: Omit<Device, 'order'>,
  name: string,
): { device: Device; operations: Operation[] } {
  const [order] = ordersBetween(devicesInOrder(tables).at(-1)?.order ?? null, null);
  const taken = new Set(Object.values(tables.device).map((device) => device.name));
  const isFree = (one: string): boolean => !taken.has(one);
  const device: Device = { ...original, id: newId(), name: freeName(name, isFree), order };
  return { device, operations: [create(RECORDS_DOCUMENT, 'device', device)] };
}

/** A new device with the limits of the weakest standard one. */
export function newDevice(tables: Tables): { device: Device; operations: Operation[] } {
  return copyOfDevice(tables, STANDARD_DEVICES[0], 'New device');
}

/** What deletes a device with what cannot be without it: its walks go too, readiness no longer asks for it. */
export function deleteDevice(tables: RecordTables, device: Device): Operation[] {
  const users = recordUsers(tables, 'device', device.id);
  return [
    ...users.flatMap(({ id }): Operation[] => {
      const walk = heldAt(tables.rehearsal, id);
      if (walk) return [remove(RECORDS_DOCUMENT, 'rehearsal', walk)];
      const settings = heldAt(tables.collection, id);
      const readiness = settings?.readiness;
      return settings && readiness
        ? [
            setRecordField(
              'collection',
              settings,
              'readiness',
              plainJson({ ...readiness, devices: readiness.devices.filter((one) => one !== device.id) }),
            ),
          ]
        : [];
    }),
    remove(RECORDS_DOCUMENT, 'device', device),
  ];
}
