import { Injectable, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { registersInOrder } from '@stravel/core';
import { Addresses } from '../../../addresses';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { newRegister } from './register-edits';

/** The registers of the collection, for the tabs of every table, and how a new one is made. */
@Injectable()
export class RegisterMaker {
  private readonly edits = inject(EditLog);
  private readonly addresses = inject(Addresses);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly registers = computed(() => registersInOrder(this.tables()));

  /** Makes a register and goes there. */
  async make(): Promise<void> {
    const { register, operations } = newRegister(this.tables(), 'New register');
    await this.edits.commit('new register', operations);
    await this.addresses.go(['/sets/register', register.id]);
  }
}
