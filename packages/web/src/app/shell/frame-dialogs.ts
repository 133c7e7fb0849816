/** What the frame may have to ask or say at any time, also while the server cannot be reached. Loaded once the first page is drawn. */
export { MatDialog } from '@angular/material/dialog';
export { MatSnackBar } from '@angular/material/snack-bar';
export { AskDialog } from '../ui/ask-dialog';
export { ConflictDialog } from './conflict-dialog';
export { FindDialog } from './find-dialog';
export { KeysDialog } from './keys-dialog';
export { PersonDialog } from './person-dialog';
export { RefusedDialog } from './refused-dialog';
