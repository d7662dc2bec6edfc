import { Vector3 } from "three";
import { expect, it } from "vitest";
import { unpackMesh } from "./mesh-data";
import { facing } from "./mesh-pole";

async function packed(values: Int16Array<ArrayBuffer> | Uint32Array<ArrayBuffer>): Promise<string> {
  const stream = new Response(values.buffer).body?.pipeThrough(new CompressionStream("deflate"));
  const bytes = new Uint8Array(await new Response(stream).arrayBuffer());
  return btoa(String.fromCharCode(...bytes));
}

it("a mesh is unpacked as it was packed", async () => {
  const form = {
    base: "mesh" as const,
    reach_mm: 64,
    corners: await packed(Int16Array.from([0, 0, 0, 32_000, 0, 0, 0, -16_000, 0])),
    faces: await packed(Uint32Array.from([0, 1, 2])),
    pole: 0,
  };
  const surface = await unpackMesh(form);
  expect([...surface.x]).toEqual([0, 0, 0, 64, 0, 0, 0, -32, 0]);
  expect([...surface.triangles]).toEqual([0, 1, 2]);
  await expect(unpackMesh({ ...form, corners: "!" })).rejects.toThrow();
});

it("rounds can begin at what faces her", () => {
  const x = Float32Array.from([0, -50, 0, 0, 50, 0, 50, 0, 0, 0, 0, 50]);
  const surface = { x, triangles: new Uint32Array() };
  expect(facing(surface, new Vector3(0, -200, 10), [0, 0, 0])).toBe(0);
  expect(facing(surface, new Vector3(10, 200, 0), [0, 0, 0])).toBe(1);
  expect(facing(surface, new Vector3(0, -5, 200), [0, 0, 0])).toBe(3);
});
