import type { Device } from './device';

const MB = 1000000;

/** The simulated devices that ship, weakest first. Their figures are invented; `order` is given where they are added. */
export const STANDARD_DEVICES: readonly Omit<Device, 'order'>[] = [
  {
    id: 'handheld',
    name: 'Handheld',
    budget: { triangles: 380000, drawCalls: 300, memoryBytes: 96 * MB, loadMs: 4000, diskBytes: 64 * MB },
    seekMs: 12,
    diskBytesPerSecond: 20 * MB,
    unpackBytesPerSecond: 60 * MB,
    activationSliceMs: 2,
    activationBytesPerMs: 20000,
    framesPerSecond: 30,
  },
  {
    id: 'living-room-box',
    name: 'Living-room box',
    budget: { triangles: 1500000, drawCalls: 1200, memoryBytes: 900 * MB, loadMs: 6000, diskBytes: 400 * MB },
    seekMs: 6,
    diskBytesPerSecond: 90 * MB,
    unpackBytesPerSecond: 250 * MB,
    activationSliceMs: 3,
    activationBytesPerMs: 80000,
    framesPerSecond: 60,
  },
  {
    id: 'desk-tower',
    name: 'Desk tower',
    budget: { triangles: 6000000, drawCalls: 4000, memoryBytes: 4000 * MB, loadMs: 5000, diskBytes: 2000 * MB },
    seekMs: 0.1,
    diskBytesPerSecond: 1500 * MB,
    unpackBytesPerSecond: 900 * MB,
    activationSliceMs: 4,
    activationBytesPerMs: 300000,
    framesPerSecond: 120,
  },
];
