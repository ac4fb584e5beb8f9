/** Catches a GDTF file of ours that other programs cannot use: its shape, by the words of the standard (DIN SPEC 15800). */
import { strFromU8, unzipSync } from "fflate";
import { LIBRARY } from "../../fixture/library/library";
import { writeGdtf } from "./file";
import { all, first, readXml, text, within, type Element } from "./xml";

const GEOMETRIES = ["Geometry", "Axis", "Beam", "GeometryReference", "FilterBeam", "Display", "Structure"];
const GUID = /^[0-9A-F]{8}(-[0-9A-F]{4}){3}-[0-9A-F]{12}$/i;

/** Every geometry below an element, with its tag. */
const below = (element: Element | undefined): [tag: string, geometry: Element][] =>
  GEOMETRIES.flatMap((tag) => all(element, tag).flatMap((g): [string, Element][] => [[tag, g], ...below(g)]));

function faultsOf(root: Element): string[] {
  const faults: string[] = [];
  const demand = (holds: boolean, what: string) => void (holds || faults.push(what));
  const type = first(root, "FixtureType");
  demand(/^1\.[12]$/.test(text(root, "DataVersion")), "DataVersion");
  for (const name of ["Name", "ShortName", "LongName", "Manufacturer"]) demand(text(type, name) !== "", name);
  demand(GUID.test(text(type, "FixtureTypeID")), "FixtureTypeID");
  const definitions = first(type, "AttributeDefinitions");
  const features = new Set(
    within(definitions, "FeatureGroups", "FeatureGroup").flatMap((group) =>
      all(group, "Feature").map((f) => `${text(group, "Name")}.${text(f, "Name")}`),
    ),
  );
  const attributes = new Set(within(definitions, "Attributes", "Attribute").map((a) => text(a, "Name")));
  for (const a of within(definitions, "Attributes", "Attribute")) {
    demand(features.has(text(a, "Feature")), `${text(a, "Name")}: its feature ${text(a, "Feature")}`);
    demand(text(a, "Pretty") !== "", `${text(a, "Name")}: pretty`);
  }
  const names = (outer: string, tag: string, of = first(type, "PhysicalDescriptions")) =>
    new Set(within(of, outer, tag).map((e) => text(e, "Name")));
  const known: Record<string, Set<string>> = {
    Wheel: names("Wheels", "Wheel", type),
    Emitter: names("Emitters", "Emitter"),
    Filter: names("Filters", "Filter"),
    Model: names("Models", "Model", type),
  };
  const geometries = below(first(type, "Geometries"));
  const geometryNames = geometries.map(([, g]) => text(g, "Name"));
  demand(new Set(geometryNames).size === geometryNames.length, "geometry names are unique");
  const tops = new Set(GEOMETRIES.flatMap((tag) => within(type, "Geometries", tag)).map((g) => text(g, "Name")));
  for (const [tag, g] of geometries) {
    demand(text(g, "Name") !== "" && !/[.]/.test(text(g, "Name")), "a geometry has a name");
    if (text(g, "Model")) demand(known.Model!.has(text(g, "Model")), `model ${text(g, "Model")}`);
    if (tag === "GeometryReference") demand(tops.has(text(g, "Geometry")), `reference to ${text(g, "Geometry")}`);
  }
  const modes = within(type, "DMXModes", "DMXMode");
  demand(modes.length > 0, "a mode");
  for (const mode of modes) {
    const where = text(mode, "Name");
    demand(tops.has(text(mode, "Geometry")), `${where}: its geometry`);
    const channels = within(mode, "DMXChannels", "DMXChannel");
    const ids = channels.map((c) => `${text(c, "Geometry")}_${text(all(c, "LogicalChannel")[0], "Attribute")}`);
    demand(new Set(ids).size === ids.length, `${where}: names of channels`);
    for (const [k, channel] of channels.entries()) {
      const at = `${where}, ${ids[k]}`;
      const offsets = text(channel, "Offset");
      const bytes = offsets === "" ? undefined : offsets.split(",").length;
      demand(offsets === "" || /^\d+(,\d+){0,3}$/.test(offsets), `${at}: offset ${offsets}`);
      const [tag] = geometries.find(([, g]) => text(g, "Name") === text(channel, "Geometry")) ?? [];
      demand(tag !== undefined, `${at}: its geometry`);
      const logical = all(channel, "LogicalChannel");
      demand(logical.length > 0, `${at}: a logical channel`);
      if (/^(Pan|Tilt)$/.test(text(logical[0], "Attribute")))
        demand(tag === "Axis", `${at} turns an axis, not a ${tag}`);
      const value = (element: Element, name: string) => {
        const found = /^(\d+)\/([1-4])$/.exec(text(element, name));
        demand(found !== null, `${at}: ${name} ${text(element, name)}`);
        if (!found) return NaN;
        demand(Number(found[1]) < 256 ** Number(found[2]), `${at}: ${name} is too large`);
        if (bytes !== undefined && name !== "ModeFrom" && name !== "ModeTo")
          demand(Number(found[2]) === bytes, `${at}: ${name} has ${found[2]} bytes, the channel ${bytes}`);
        return Number(found[1]);
      };
      if (text(channel, "Highlight") !== "None" && bytes !== undefined) value(channel, "Highlight");
      const functions = logical.flatMap((l) => all(l, "ChannelFunction").map((f) => [l, f] as const));
      const links = functions.map(([l, f]) => `${ids[k]}.${text(l, "Attribute")}.${text(f, "Name")}`);
      demand(new Set(links).size === links.length, `${at}: names of functions`);
      demand(
        links.includes(text(channel, "InitialFunction")),
        `${at}: InitialFunction ${text(channel, "InitialFunction")}`,
      );
      demand(
        functions.some(([, f]) => value(f, "DMXFrom") === 0),
        `${at}: what begins at 0`,
      );
      for (const [l, f] of functions) {
        const attribute = text(f, "Attribute");
        demand(attribute === "NoFeature" || attributes.has(attribute), `${at}: attribute ${attribute}`);
        demand(attributes.has(text(l, "Attribute")), `${at}: attribute ${text(l, "Attribute")}`);
        value(f, "Default");
        for (const reference of ["Wheel", "Emitter", "Filter"])
          if (text(f, reference))
            demand(known[reference]!.has(text(f, reference)), `${at}: ${reference} ${text(f, reference)}`);
        const master = text(f, "ModeMaster");
        if (master) {
          demand(ids.includes(master) || links.includes(master), `${at}: ModeMaster ${master}`);
          demand(value(f, "ModeFrom") <= value(f, "ModeTo"), `${at}: ModeFrom`);
        }
        for (const set of all(f, "ChannelSet")) value(set, "DMXFrom");
      }
    }
  }
  return faults;
}

test.each(LIBRARY.map((type) => [type.id, type] as const))("%s", (_, type) => {
  const xml = unzipSync(writeGdtf(type))["description.xml"];
  const root = readXml(strFromU8(xml!), "GDTF", "it");
  if ("refused" in root) throw new Error("unreadable");
  expect(faultsOf(root)).toEqual([]);
});
