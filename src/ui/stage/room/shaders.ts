/** Light in haze and on the floor, as shaders: each beam a copy with values of its own. */
import { ACROSS } from "./pictures";

const INSTANCE = /* glsl */ `
attribute vec3 iOrigin;
attribute vec3 iDir;
attribute vec3 iUp;
attribute vec4 iColor;
attribute vec4 iShape;
attribute vec4 iLook;
varying vec4 vColor;
varying vec4 vLook;
`;

/** A cone from the lens: position.xy around, position.z along. What changes slowly is worked out at the corners. */
export const BEAM_VERTEX = /* glsl */ `
${INSTANCE}
varying float vFacing;
varying float vAlong;
#ifdef RAYS
varying float vAround;
#endif
#ifdef STRUCTURE
varying vec3 vPlace;
#endif
void main() {
  float radius = iShape.z + position.z * iShape.x * iShape.y;
  vec3 side = cross(iDir, iUp);
  vec3 outward = iUp * position.x + side * position.y;
  vec3 place = iOrigin + iDir * (position.z * iShape.x) + outward * radius;
  vFacing = dot(outward, normalize(cameraPosition - place));
  vAlong = position.z;
#ifdef RAYS
  vAround = atan(position.y, position.x);
#endif
  vColor = iColor;
  vLook = iLook;
#ifdef STRUCTURE
  vPlace = place;
#endif
  gl_Position = projectionMatrix * (viewMatrix * vec4(place, 1.0));
}
`;

/** @param RAYS streaks of a gobo in the beam. @param STRUCTURE of the haze. */
export const BEAM_FRAGMENT = /* glsl */ `
precision mediump float;
varying float vFacing;
varying float vAlong;
varying vec4 vColor;
varying vec4 vLook;
#ifdef RAYS
varying float vAround;
#endif
#ifdef STRUCTURE
varying vec3 vPlace;
#endif
uniform float haze;
uniform float time;
void main() {
  float fade = 1.0 - vAlong;
  float a = vColor.a * haze * vFacing * vFacing * (0.14 + 0.5 * fade * fade);
#ifdef RAYS
  if (vLook.x > 0.5) a *= 0.55 + 0.45 * sin(vAround * (5.0 + mod(vLook.x, 4.0)) + vLook.y * 2.0);
#endif
#ifdef STRUCTURE
  vec3 p = vPlace * 1.3 + vec3(time * 0.15, time * 0.05, -time * 0.08);
  a *= 0.78 + 0.22 * sin(p.x + 2.0 * sin(p.y)) * sin(p.y * 0.7 + 1.5 * sin(p.z));
#endif
  gl_FragColor = vec4(vColor.rgb * a, 1.0);
}
`;

/** Where a beam meets the floor: a square around the spot. */
export const POOL_VERTEX = /* glsl */ `
${INSTANCE}
varying vec3 vRel;
varying vec3 vDir;
varying vec3 vUp;
varying vec3 vSide;
varying vec4 vShape;
varying vec2 vTurn;
void main() {
  // The ellipse a cone cuts out of the floor, from its near end to its far one.
  float tilt = acos(clamp(-iDir.z, 0.0, 1.0));
  float open = atan(iShape.y);
  float high = max(0.05, iOrigin.z);
  float near = high * tan(max(-1.45, tilt - open));
  float far = high * tan(min(1.45, tilt + open));
  float flat_ = length(iDir.xy);
  vec2 along = flat_ > 0.001 ? iDir.xy / flat_ : vec2(1.0, 0.0);
  float wide = iLook.z > 1.5 ? 1.6 : 1.0;
  float middle = 0.5 * (near + far);
  float longWay = 0.5 * (far - near) * wide + iShape.z * 1.5;
  float across = (sqrt(high * high + middle * middle) * iShape.y + iShape.z) * wide * 1.08;
  vec2 foot = iOrigin.xy + along * (middle + position.x * longWay) + vec2(-along.y, along.x) * position.y * across;
  vec3 place = vec3(foot, 0.012);
  vRel = place - iOrigin;
  vDir = iDir;
  vUp = iUp;
  vSide = cross(iDir, iUp);
  vTurn = vec2(cos(iLook.y), sin(iLook.y));
  vShape = iShape;
  vColor = iColor;
  vLook = iLook;
  gl_Position = projectionMatrix * (viewMatrix * vec4(place, 1.0));
}
`;

/** @param GOBO the picture in the beam. */
export const POOL_FRAGMENT = /* glsl */ `
precision mediump float;
varying vec4 vColor;
varying vec4 vLook;
varying vec3 vRel;
varying vec3 vDir;
varying vec3 vUp;
varying vec3 vSide;
varying vec4 vShape;
varying vec2 vTurn;
uniform sampler2D gobos;
float spot(vec2 at, float soft) {
  float r = length(at);
  float a = 1.0 - smoothstep(1.0 - soft, 1.0, r);
#ifdef GOBO
  if (vLook.x > 0.5 && a > 0.0) {
    vec2 t = vec2(vTurn.x * at.x - vTurn.y * at.y, vTurn.y * at.x + vTurn.x * at.y) * 0.5 + 0.5;
    vec2 tile = vec2(mod(vLook.x, ${ACROSS}.0), floor(vLook.x / ${ACROSS}.0));
    a *= texture2D(gobos, (tile + clamp(t, 0.02, 0.98)) / ${ACROSS}.0).r;
  }
#endif
  return a;
}
void main() {
  float along = dot(vRel, vDir);
  if (along <= 0.0) discard;
  vec3 across = vRel - along * vDir;
  vec2 at = vec2(dot(across, vUp), dot(across, vSide)) / (vShape.z + along * vShape.y);
  float soft = mix(0.18, 0.95, vLook.w);
  float a;
  if (vLook.z > 1.5) {
    a = 0.0;
    for (int k = 0; k < 3; k++) {
      float t = float(k) * 2.0944 + vLook.y * 0.5;
      a += 0.5 * spot(at - vec2(cos(t), sin(t)) * 0.55, soft);
    }
  } else a = spot(at, soft);
  if (a <= 0.004) discard;
  float strength = vColor.a * a * clamp(3.5 / (along * along * (0.08 + vShape.y)), 0.12, 0.95);
  gl_FragColor = vec4(vColor.rgb * strength, 1.0);
}
`;

/** Bodies: their colour, by how they are turned to the light. */
export const BODY_VERTEX = /* glsl */ `
varying vec3 vShade;
uniform vec3 tint;
void main() {
  vec3 colour = tint;
#ifdef USE_COLOR
  colour = color;
#endif
#ifdef GLOWS
  vShade = colour;
#else
  vec3 n = normalize(mat3(modelMatrix) * normal);
  vShade = colour * (0.55 + 0.3 * n.z + 0.25 * max(0.0, -n.y));
#endif
  gl_Position = projectionMatrix * (viewMatrix * (modelMatrix * vec4(position, 1.0)));
}
`;
export const BODY_FRAGMENT = /* glsl */ `
precision mediump float;
varying vec3 vShade;
void main() {
  gl_FragColor = vec4(vShade, 1.0);
}
`;
export const BLACK_FRAGMENT = /* glsl */ `
void main() {
  gl_FragColor = vec4(0.0, 0.0, 0.0, 1.0);
}
`;

/** What was drawn small, over the whole picture. */
export const AIR_VERTEX = /* glsl */ `
varying vec2 vAt;
void main() {
  vAt = uv;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}
`;
export const AIR_FRAGMENT = /* glsl */ `
precision mediump float;
varying vec2 vAt;
uniform sampler2D map;
void main() {
  gl_FragColor = texture2D(map, vAt);
}
`;
