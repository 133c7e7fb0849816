import { MEGABYTE, begins, type FormatSpec } from '../format-spec';

const MAX_PICTURE_BYTES = 64 * MEGABYTE;

export const PNG: FormatSpec = {
  words: 'a PNG picture',
  extensions: ['.png'],
  mediaTypes: ['image/png'],
  isOf: (head) => begins(head, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
  maxBytes: MAX_PICTURE_BYTES,
  task: null,
};

export const JPEG: FormatSpec = {
  words: 'a JPEG picture',
  extensions: ['.jpg', '.jpeg'],
  mediaTypes: ['image/jpeg'],
  isOf: (head) => begins(head, [0xff, 0xd8, 0xff]),
  maxBytes: MAX_PICTURE_BYTES,
  task: null,
};

export const WEBP: FormatSpec = {
  words: 'a WebP picture',
  extensions: ['.webp'],
  mediaTypes: ['image/webp'],
  isOf: (head) => begins(head, [0x52, 0x49, 0x46, 0x46]) && begins(head, [0x57, 0x45, 0x42, 0x50], 8),
  maxBytes: MAX_PICTURE_BYTES,
  task: null,
};

/** A texture that a graphics card takes as it is. Its pixels are read by nobody here: its header says how large it is. */
export const KTX2: FormatSpec = {
  words: 'a KTX2 texture',
  extensions: ['.ktx2'],
  mediaTypes: ['image/ktx2'],
  isOf: (head) => begins(head, [0xab, 0x4b, 0x54, 0x58, 0x20, 0x32, 0x30, 0xbb]),
  maxBytes: MAX_PICTURE_BYTES,
  task: null,
};
