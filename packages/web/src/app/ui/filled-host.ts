/** A host that its parent gives its size, and that draws over all of it. */
export const FILLED_HOST = `
  :host {
    display: block;
    position: relative;
    min-height: 0;
    min-width: 0;
  }
`;
