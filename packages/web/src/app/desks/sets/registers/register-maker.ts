import { Injectable, computed, inject } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { registersInOrder } from '@stravel/core';
import { recordsFeature } from '../../../document/records/records-store';
import { EditLog } from '../../../edits/edit-log';
import { newRegister } from './register-edits';

/** The registers of the collection, for the tabs of every table, and how a new one is made. */
@Injectable({ providedIn: 'root' })
export class RegisterMaker {
  private readonly edits = inject(EditLog);
  private readonly router = inject(Router);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  readonly registers = computed(() => registersInOrder(this.tables()));

  /** Makes a register and goes there. */
  async make(): Promise<void> {
    const { register, operations } = newRegister(this.tables(), 'New register');
    await this.edits.commit('new register', operations);
    await this.router.navigate(['/sets/register', register.id]);
  }
}
