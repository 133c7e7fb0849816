import type { PerspectiveCamera, Scene, WebGLRenderer } from 'three';
import { GTAOPass } from 'three/addons/postprocessing/GTAOPass.js';
import { FullScreenQuad } from 'three/addons/postprocessing/Pass.js';

/** How far around what is near takes light away, metres. */
const REACH_METRES = 1.5;
const STRENGTH = 0.85;

/**
 * The shade in corners and where one thing stands close to another (ambient occlusion). It is found once for a look at
 * a scene and laid over each frame that shows the same. Source: Jiménez et al., Practical Realtime Strategies for
 * Accurate Indirect Occlusion, 2016, as three.js has it.
 */
export class CornerShade {
  private readonly pass: GTAOPass;
  private readonly laidOver: FullScreenQuad;
  private foundFor = '';
  private size = '';

  constructor(
    scene: Scene,
    private readonly camera: PerspectiveCamera,
  ) {
    this.pass = new GTAOPass(scene, camera, 1, 1);
    this.pass.updateGtaoMaterial({ radius: REACH_METRES, samples: 16, thickness: 2 });
    this.pass.output = GTAOPass.OUTPUT.Off;
    const { blendMaterial } = this.pass;
    blendMaterial.uniforms['intensity'].value = STRENGTH;
    this.laidOver = new FullScreenQuad(blendMaterial);
  }

  /**
   * Lays the shade over what was drawn just now. @param width, height pixels of the pane
   * @param revision of the scene and of how it is cut @param mayFind whether there is time to find it, where it is not known
   */
  draw(renderer: WebGLRenderer, [width, height]: readonly [number, number], revision: string, mayFind: boolean): void {
    const { pass, camera } = this;
    const wanted = [
      revision,
      width,
      height,
      ...camera.projectionMatrix.elements,
      ...camera.matrixWorld.elements,
    ].join();
    if (wanted !== this.foundFor) {
      if (!mayFind) return;
      if (this.size !== `${width} ${height}`) pass.setSize(width, height);
      this.size = `${width} ${height}`;
      pass.render(renderer, pass.pdRenderTarget, pass.pdRenderTarget, 0, false);
      renderer.setRenderTarget(null);
      this.foundFor = wanted;
    }
    pass.blendMaterial.uniforms['tDiffuse'].value = pass.gtaoMap;
    const cutting = renderer.clippingPlanes;
    renderer.clippingPlanes = [];
    this.laidOver.render(renderer);
    renderer.clippingPlanes = cutting;
  }

  /** It is to be found again: what was found is gone with the context that held it. */
  forget(): void {
    this.foundFor = '';
  }

  dispose(): void {
    this.pass.dispose();
    this.laidOver.dispose();
  }
}
