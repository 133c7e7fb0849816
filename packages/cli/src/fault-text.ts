import { errorText } from '@stravel/core';

/** What went wrong, in words: a file system says what it would not do by codes. */
export function faultText(error: unknown): string {
  const { code, path } = error as NodeJS.ErrnoException;
  if (typeof path === 'string') {
    if (code === 'ENOENT') return `there is no file or folder ${path}`;
    if (code === 'ENOTDIR') return `part of ${path} is a file, not a folder`;
    if (code === 'EISDIR') return `${path} is a folder, not a file`;
    if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS') return `${path} cannot be read or written (${code})`;
  }
  return errorText(error);
}
