/**
 * Many copies of a shape as one mesh, put in place by the page: without a GPU each instance of an instanced mesh is a
 * draw of its own, and a hundred of them cost more than all they show.
 */
import {
  BufferAttribute,
  BufferGeometry,
  DynamicDrawUsage,
  Mesh,
  type Color,
  type Material,
  type Matrix4,
} from "three";

/** The index of a shape, so many times over. */
function repeated(shape: BufferGeometry, count: number): BufferAttribute {
  const index = shape.index!.array;
  const step = shape.getAttribute("position").count;
  const made = new Uint32Array(index.length * count);
  for (let k = 0; k < count; k++)
    for (let i = 0; i < index.length; i++) made[k * index.length + i] = index[i]! + k * step;
  return new BufferAttribute(made, 1);
}

/** A shape so many times, each where its matrix puts it, in a colour of its own. */
export class Many extends Mesh<BufferGeometry, Material> {
  private readonly places: Float32Array;
  private readonly sides: Float32Array;
  private readonly step: number;

  constructor(
    shape: BufferGeometry,
    readonly copies: number,
    paint: Material,
  ) {
    super(new BufferGeometry(), paint);
    this.places = shape.getAttribute("position").array as Float32Array;
    this.sides = shape.getAttribute("normal").array as Float32Array;
    this.step = this.places.length / 3;
    for (const name of ["position", "normal", "color"])
      this.geometry.setAttribute(
        name,
        new BufferAttribute(new Float32Array(copies * this.places.length), 3).setUsage(DynamicDrawUsage),
      );
    this.geometry.setIndex(repeated(shape, copies));
    this.frustumCulled = false;
    this.visible = copies > 0;
  }

  put(k: number, { elements: e }: Matrix4): void {
    const [at, to] = [this.array("position"), this.array("normal")];
    const [places, sides] = [this.places, this.sides];
    let o = k * places.length;
    for (let i = 0; i < places.length; i += 3, o += 3) {
      const [x, y, z] = [places[i]!, places[i + 1]!, places[i + 2]!];
      at[o] = e[0] * x + e[4] * y + e[8] * z + e[12];
      at[o + 1] = e[1] * x + e[5] * y + e[9] * z + e[13];
      at[o + 2] = e[2] * x + e[6] * y + e[10] * z + e[14];
      const [nx, ny, nz] = [sides[i]!, sides[i + 1]!, sides[i + 2]!];
      to[o] = e[0] * nx + e[4] * ny + e[8] * nz;
      to[o + 1] = e[1] * nx + e[5] * ny + e[9] * nz;
      to[o + 2] = e[2] * nx + e[6] * ny + e[10] * nz;
    }
  }

  paint(k: number, colour: Color): void {
    const to = this.array("color");
    for (let v = 0; v < this.step; v++) {
      const o = (k * this.step + v) * 3;
      to[o] = colour.r;
      to[o + 1] = colour.g;
      to[o + 2] = colour.b;
    }
  }

  /** What was put or painted goes to the picture. */
  send(...names: ("position" | "normal" | "color")[]): void {
    for (const name of names) this.geometry.getAttribute(name).needsUpdate = true;
  }

  private array(name: string): Float32Array {
    return this.geometry.getAttribute(name).array as Float32Array;
  }
}

/** A shape so many times over, of which each copy has values of its own for a shader. */
export class Fields {
  readonly geometry = new BufferGeometry();
  private readonly step: number;
  private readonly each: number;

  /** @param sizes numbers of each value, by its name. */
  constructor(shape: BufferGeometry, count: number, sizes: Readonly<Record<string, number>>) {
    const places = shape.getAttribute("position");
    this.step = places.count;
    this.each = shape.index!.count;
    const repeatedPlaces = new Float32Array(places.array.length * count);
    for (let k = 0; k < count; k++) repeatedPlaces.set(places.array, k * places.array.length);
    this.geometry.setAttribute("position", new BufferAttribute(repeatedPlaces, 3));
    this.geometry.setIndex(repeated(shape, count));
    for (const [name, size] of Object.entries(sizes)) {
      const made = new BufferAttribute(new Float32Array(count * this.step * size), size).setUsage(DynamicDrawUsage);
      this.geometry.setAttribute(name, made);
    }
    this.show(0);
  }

  set(k: number, name: string, a: number, b: number, c: number, d = 0): void {
    const { array, itemSize } = this.geometry.getAttribute(name) as BufferAttribute;
    for (let v = 0, o = k * this.step * itemSize; v < this.step; v++, o += itemSize) {
      array[o] = a;
      array[o + 1] = b;
      array[o + 2] = c;
      if (itemSize > 3) array[o + 3] = d;
    }
  }

  /** Only the first so many are drawn, and sent to the picture. */
  show(count: number): void {
    this.geometry.setDrawRange(0, count * this.each);
    for (const name of Object.keys(this.geometry.attributes)) {
      if (name === "position") continue;
      const attribute = this.geometry.getAttribute(name) as BufferAttribute;
      attribute.clearUpdateRanges();
      attribute.addUpdateRange(0, count * this.step * attribute.itemSize);
      attribute.needsUpdate = count > 0;
    }
  }
}
