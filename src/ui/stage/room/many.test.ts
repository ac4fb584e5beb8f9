/** Catches copies of a shape that stand, shine or are counted otherwise than they were put. */
import { BoxGeometry, Color, Matrix4, MeshBasicMaterial, PlaneGeometry, Quaternion, Vector3 } from "three";
import { Fields, Many } from "./many";

test("each copy stands where its matrix puts it, with its own colour, and the faces are of its own corners", () => {
  const shape = new BoxGeometry(1, 1, 1);
  const many = new Many(shape, 3, new MeshBasicMaterial());
  const corners = shape.getAttribute("position").count;
  const matrix = new Matrix4().compose(
    new Vector3(4, -2, 6),
    new Quaternion().setFromAxisAngle(new Vector3(0, 0, 1), 0.7),
    new Vector3(0.3, 0.2, 0.9),
  );
  many.put(1, matrix);
  many.paint(2, new Color(1, 0.5, 0.25));
  const [at, colour] = [many.geometry.getAttribute("position"), many.geometry.getAttribute("color")];
  for (let v = 0; v < corners; v++) {
    const wanted = new Vector3().fromBufferAttribute(shape.getAttribute("position"), v).applyMatrix4(matrix);
    expect(new Vector3().fromBufferAttribute(at, corners + v).distanceTo(wanted)).toBeLessThan(1e-5);
    expect([colour.getX(2 * corners + v), colour.getZ(2 * corners + v), colour.getX(v)]).toEqual([1, 0.25, 0]);
  }
  const faces = [...many.geometry.index!.array];
  const each = shape.index!.count;
  expect(faces).toHaveLength(3 * each);
  for (const [i, corner] of faces.entries()) expect(Math.floor(corner / corners)).toBe(Math.floor(i / each));
  expect(new Many(shape, 0, new MeshBasicMaterial()).visible).toBe(false);
});

test("values are those of one copy at all its corners, and only what is shown is drawn", () => {
  const fields = new Fields(new PlaneGeometry(2, 2), 4, { iDir: 3, iColor: 4 });
  fields.set(2, "iColor", 0.5, 0.25, 0.125, 1);
  fields.set(2, "iDir", 0, 0, -1);
  fields.show(3);
  const colour = fields.geometry.getAttribute("iColor").array;
  expect([...colour.slice(2 * 16, 3 * 16)]).toEqual(Array.from({ length: 4 }, () => [0.5, 0.25, 0.125, 1]).flat());
  expect(colour.slice(3 * 16).every((v) => v === 0)).toBe(true);
  expect([...fields.geometry.getAttribute("iDir").array.slice(2 * 12, 2 * 12 + 3)]).toEqual([0, 0, -1]);
  expect(fields.geometry.drawRange).toEqual({ start: 0, count: 3 * 6 });
});
