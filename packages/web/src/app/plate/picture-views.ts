/** From where the picture of a level can be drawn. */
export const PICTURE_VIEWS = ['plan', 'model'] as const;
export type PictureView = (typeof PICTURE_VIEWS)[number];
