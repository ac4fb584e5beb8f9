let known: boolean | undefined;

/** Whether this browser draws in three dimensions: some have no WebGL, or have it turned off. */
export function drawsRoom(): boolean {
  if (known === undefined) {
    const gl = document.createElement("canvas").getContext("webgl2");
    known = gl !== null;
    gl?.getExtension("WEBGL_lose_context")?.loseContext();
  }
  return known;
}
