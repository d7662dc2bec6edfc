/** A mesh as recipes hold it (docs/file-format.md), unpacked to draw it. */
import type { Surface } from "../figure/settled";
import type { Mesh } from "./recipe";

const REACH = 32_000;

async function inflated(packed: string): Promise<ArrayBuffer> {
  const bytes = Uint8Array.from(atob(packed), (letter) => letter.charCodeAt(0));
  const stream = new Response(bytes).body?.pipeThrough(new DecompressionStream("deflate"));
  return new Response(stream).arrayBuffer();
}

export async function unpackMesh(form: Mesh): Promise<Surface> {
  const [corners, faces] = await Promise.all([inflated(form.corners), inflated(form.faces)]);
  const scale = form.reach_mm / REACH;
  return {
    x: Float32Array.from(new Int16Array(corners), (v) => v * scale),
    triangles: new Uint32Array(faces),
  };
}
