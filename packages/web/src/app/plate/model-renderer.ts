import { WebGLRenderer } from 'three';

/** Names under which browsers draw without a graphics card. */
const WITHOUT_CARD = /swiftshader|llvmpipe|softpipe|software|basic render/i;

let hasCard: boolean | undefined;

/**
 * A renderer of models. Edges are smoothed only where a graphics card draws them: without one, a smooth frame of a level
 * of 110 draws took 4.5 s, one that is not 1.2 s (Chromium's own renderer, 2 cores).
 * @throws Error when the browser has no WebGL 2
 */
export function modelRenderer(canvas: HTMLCanvasElement, { stencil }: { readonly stencil: boolean }): WebGLRenderer {
  hasCard ??= findCard(document.createElement('canvas').getContext('webgl2'));
  return new WebGLRenderer({ canvas, alpha: true, stencil, antialias: hasCard });
}

/** Whether a card draws, by the name that the browser gives; a browser that gives none is taken to have one. */
function findCard(context: WebGL2RenderingContext | null): boolean {
  const names = context?.getExtension('WEBGL_debug_renderer_info');
  const name = names ? String(context?.getParameter(names.UNMASKED_RENDERER_WEBGL)) : '';
  context?.getExtension('WEBGL_lose_context')?.loseContext();
  return !WITHOUT_CARD.test(name);
}
