import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  DEVICE_LIMITS,
  DEVICE_SPEEDS,
  STANDARD_DEVICES,
  counted,
  heldAt,
  plainRecord,
  recordUsers,
  valueAt,
  type Device,
  type DeviceField,
} from '@stravel/core';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { setRecordField } from '../edits/operations';
import { Session } from '../session';
import { bytesText, countText } from '../ui/amount';
import { Ask } from '../ui/ask';
import { NumberField } from '../ui/number-field';
import { Workspace } from '../workspace';
import { copyOfDevice, deleteDevice, devicesInOrder, newDevice } from './device-edits';
import { Help } from '../guide/help';

const MAX_NAME_LENGTH = 200;

/** The simulated devices of the collection: limits and speeds, by which every figure is judged. */
@Component({
  selector: 'sv-devices-page',
  imports: [Help, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './devices-page.html',
  styleUrl: './devices-page.scss',
})
export class DevicesPage {
  private readonly edits = inject(EditLog);
  private readonly ask = inject(Ask);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly workspace = inject(Workspace);
  readonly session = inject(Session);
  readonly groups = [
    { name: 'Limits', text: 'What a level may cost on it.', fields: Object.values(DEVICE_LIMITS) },
    { name: 'Speeds', text: 'From them load times and rehearsals are computed.', fields: Object.values(DEVICE_SPEEDS) },
  ];
  readonly standard = STANDARD_DEVICES;
  readonly devices = computed(() => devicesInOrder(this.tables()));
  private readonly picked = signal('');
  readonly device = computed(() => this.devices().find(({ id }) => id === this.picked()) ?? this.session.device());
  readonly users = computed(() => recordUsers(this.tables(), 'device', this.device()?.id ?? ''));
  readonly nameFault = signal('');

  constructor() {
    effect(() => {
      const count = this.devices().length;
      this.workspace.footLeft.set([count === 0 ? 'No device, no budget' : counted(count, 'device')]);
      this.workspace.footRight.set([]);
    });
  }

  summary({ budget }: Pick<Device, 'budget'>): string {
    return `${countText(budget.triangles)} triangles · ${countText(budget.drawCalls)} calls · ${bytesText(budget.memoryBytes)}`;
  }

  pick(device: Device): void {
    this.picked.set(device.id);
    this.nameFault.set('');
  }

  shown(device: Device, { path, scale }: DeviceField): number {
    return Number(valueAt(plainRecord(device), path)) / scale;
  }

  range({ min, max, scale, unit }: DeviceField): string {
    const low = min / scale;
    const high = `${(max / scale).toLocaleString('en')}${unit ? ` ${unit}` : ''}`;
    return low < 0.001 && low > 0 ? `up to ${high}` : `${low.toLocaleString('en')} to ${high}`;
  }

  async set(device: Device, { path, name, scale, isWhole }: DeviceField, value: number): Promise<void> {
    // What was typed in megabytes is stored in bytes, without the last digits of a product of fractions.
    const stored = isWhole ? Math.round(value * scale) : Math.round(value * scale * 1e6) / 1e6;
    await this.edits.commit(`${name} of ${device.name}`, [setRecordField('device', device, path, stored)]);
  }

  async rename(device: Device, typed: string): Promise<void> {
    const name = typed.trim();
    if (name === device.name) this.nameFault.set('');
    else if (name === '') this.nameFault.set('A device needs a name.');
    else if (name.length > MAX_NAME_LENGTH)
      this.nameFault.set(`A name has at most ${MAX_NAME_LENGTH} characters; this one has ${name.length}.`);
    else {
      this.nameFault.set('');
      await this.edits.commit(`rename ${device.name}`, [setRecordField('device', device, 'name', name)]);
    }
  }

  async add(standard?: (typeof STANDARD_DEVICES)[number]): Promise<void> {
    const { device, operations } = standard
      ? copyOfDevice(this.tables(), standard, standard.name)
      : newDevice(this.tables());
    await this.edits.commit(`add ${device.name}`, operations);
    this.picked.set(device.id);
  }

  async copy(original: Device): Promise<void> {
    const { device, operations } = copyOfDevice(this.tables(), original, `${original.name} copy`);
    await this.edits.commit(`copy ${original.name}`, operations);
    this.picked.set(device.id);
  }

  async delete(device: Device): Promise<void> {
    const users = this.users();
    const walks = users.filter(({ id }) => heldAt(this.tables().rehearsal, id) !== undefined).length;
    if (users.length > 0) {
      const agreed = await this.ask.for({
        title: `Delete ${device.name}`,
        text: `It is used in ${users.map(({ name }) => name).join(', ')}.${walks > 0 ? ` ${walks === 1 ? 'The walk is' : 'The walks are'} deleted too.` : ''} One undo brings all of it back.`,
        command: walks > 0 ? `Delete it and ${counted(walks, 'walk')}` : 'Delete',
        questions: [],
      });
      if (!agreed) return;
    }
    this.picked.set('');
    await this.edits.commit(`delete ${device.name}`, deleteDevice(this.tables(), device));
  }
}
