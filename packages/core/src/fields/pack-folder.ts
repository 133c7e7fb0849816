/** How a folder of packs may be called: it lies below those of its collection, on any system. */
export const PACK_FOLDER_PATTERN = {
  matches: /^[A-Za-z0-9][A-Za-z0-9 _-]{0,59}$/,
  message: 'must be 1 to 60 letters, digits, spaces, dashes or underscores',
};
