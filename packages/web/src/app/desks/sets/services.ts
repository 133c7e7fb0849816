import type { Provider } from '@angular/core';
import { Dialogs } from '../../ui/dialogs';
import { CellWriter } from './bulk/cell-writer';
import { CsvTransfer } from './bulk/csv-transfer';
import { CodeGiver } from './codes/code-giver';
import { FieldContext } from './fields/field-context';
import { FieldDialogs } from './fields/field-dialogs';
import { RegisterMaker } from './registers/register-maker';
import { LevelReuser } from './reuse/level-reuser';

/** What the pages of the Sets desk do, made with each page and ended with it. */
export const SETS_SERVICES: Provider[] = [
  Dialogs,
  CellWriter,
  CsvTransfer,
  CodeGiver,
  FieldContext,
  FieldDialogs,
  RegisterMaker,
  LevelReuser,
];
