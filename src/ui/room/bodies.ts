/** How bodies are painted: simply, since every point of the picture is worked out by the processor where there is no GPU. */
import { Color, DoubleSide, FrontSide, ShaderMaterial } from "three";
import { BODY_FRAGMENT, BODY_VERTEX } from "./shaders";

export const bodyPaint = (tint = 0xffffff, wireframe = false): ShaderMaterial =>
  new ShaderMaterial({
    vertexShader: BODY_VERTEX,
    fragmentShader: BODY_FRAGMENT,
    uniforms: { tint: { value: new Color(tint) } },
    side: FrontSide,
    wireframe,
  });

/** What shines by itself. */
export const glowPaint = (): ShaderMaterial =>
  new ShaderMaterial({
    vertexShader: BODY_VERTEX,
    fragmentShader: BODY_FRAGMENT,
    uniforms: { tint: { value: new Color(0xffffff) } },
    defines: { GLOWS: 1 },
    side: DoubleSide,
  });
