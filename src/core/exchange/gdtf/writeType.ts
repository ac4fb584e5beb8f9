/** A fixture type as the description of a GDTF file (DIN SPEC 15800). */
import { attributeInfo, type Family } from "../../fixture/attribute";
import { toDmx } from "../../fixture/dmxValue";
import { parametersOf, type ParameterSpec } from "../../fixture/parameters";
import {
  layoutOf,
  wantsVirtualDimmer,
  type Channel,
  type ChannelFunction,
  type FixtureType,
  type Master,
  type Mode,
} from "../../fixture/type";
import { emitterOf } from "../../colour/emitters";
import { colourText } from "./colour";
import { guidOf } from "./guid";
import { UNIT_NAMES } from "./units";
import { gapsOf, isWheel, partsOf, physicalOf, setsOf } from "./writeFunctions";
import { alike, axesOf, axisName, BODY, bodyName, cellName, cellOf, geometriesOf, HEAD_BODY } from "./writeGeometry";
import { writeXml } from "./xml";

const FEATURE: Record<Family, [group: string, feature: string]> = {
  Intensity: ["Dimmer", "Dimmer"],
  Position: ["Position", "PanTilt"],
  Colour: ["Color", "Color"],
  Gobo: ["Gobo", "Gobo"],
  Beam: ["Beam", "Beam"],
  Focus: ["Focus", "Focus"],
  Shapers: ["Shapers", "Shapers"],
  Control: ["Control", "Control"],
};

/** The description of a type, as XML. */
export function writeDescription(type: FixtureType): string {
  const functions = type.modes.flatMap((m) => m.channels.flatMap((c) => c.functions));
  const names = new Set(functions.map((f) => f.attribute));
  if (type.modes.some(wantsVirtualDimmer)) names.add("Dimmer");
  const infos = [...names].map((name) => {
    const own = functions.find((f) => f.attribute === name)?.info;
    return own ? { name, ...own } : attributeInfo(name);
  });
  const { physical } = type;
  const emitters = new Map(functions.flatMap((f) => (emitterOf(f) ? [[f.attribute, emitterOf(f)!] as const] : [])));
  const filters = new Map(functions.flatMap((f) => (f.through ? [[f.attribute, f.through] as const] : [])));
  return writeXml("GDTF", {
    "@DataVersion": "1.2",
    FixtureType: [
      {
        "@Name": type.model,
        "@ShortName": type.model.slice(0, 12),
        "@LongName": type.model,
        "@Manufacturer": type.maker,
        "@Description": "",
        "@FixtureTypeID": type.guid ?? guidOf(`type ${type.id}`),
        "@CanHaveChildren": "No",
        AttributeDefinitions: [
          {
            ActivationGroups: [{}],
            FeatureGroups: [
              {
                FeatureGroup: [...new Set(infos.map((i) => i.family))].map((family) => ({
                  "@Name": FEATURE[family][0],
                  "@Pretty": family,
                  Feature: [{ "@Name": FEATURE[family][1] }],
                })),
              },
            ],
            Attributes: [
              {
                Attribute: infos.map((i) => ({
                  "@Name": i.name,
                  "@Pretty": i.label,
                  "@Feature": FEATURE[i.family].join("."),
                  "@PhysicalUnit":
                    i.name === "Dimmer"
                      ? "LuminousIntensity"
                      : i.name.startsWith("Color") && i.unit === "%"
                        ? "ColorComponent"
                        : UNIT_NAMES[i.unit],
                })),
              },
            ],
          },
        ],
        Wheels: [{ Wheel: wheelsOf(type) }],
        PhysicalDescriptions: [
          {
            Emitters: [
              {
                Emitter: [...emitters].map(([name, { xy, flux }]) => ({
                  "@Name": name,
                  "@Color": `${xy[0]},${xy[1]},${flux}`,
                })),
              },
            ],
            ...(filters.size > 0
              ? {
                  Filters: [
                    {
                      Filter: [...filters].map(([name, xy]) => ({ "@Name": name, "@Color": `${xy[0]},${xy[1]},100` })),
                    },
                  ],
                }
              : {}),
            Properties: [physical?.kilograms === undefined ? {} : { Weight: [{ "@Value": physical.kilograms }] }],
          },
        ],
        Models: [
          {
            Model: [
              {
                "@Name": BODY,
                ...(physical?.size
                  ? { "@Width": physical.size[0], "@Length": physical.size[1], "@Height": physical.size[2] }
                  : {}),
                "@PrimitiveType": physical?.round ? "Cylinder" : "Cube",
              },
              ...(physical?.head
                ? [
                    {
                      "@Name": HEAD_BODY,
                      "@Width": physical.head.size[0],
                      "@Length": physical.head.size[1],
                      "@Height": physical.head.size[2],
                      "@PrimitiveType": physical.head.round ? "Cylinder" : "Cube",
                    },
                  ]
                : []),
            ],
          },
        ],
        Geometries: [{ Geometry: type.modes.flatMap((mode, k) => geometriesOf(type, mode, k)) }],
        DMXModes: [{ DMXMode: type.modes.map((mode, k) => modeElement(mode, k)) }],
      },
    ],
  });
}

/** A wheel for each list of slots: modes that have the same share it. */
function wheelsOf(type: FixtureType): object[] {
  return [...wheelNames(type)].map(([name, fn]) => {
    const most = Math.max(...fn.steps!.map((s) => s.value));
    const slots = Array.from({ length: Math.min(most, 512) }, (_, k) => fn.steps!.find((s) => s.value === k + 1));
    return {
      "@Name": name,
      Slot: slots.map((slot) => ({
        "@Name": slot?.name ?? "",
        "@Color": slot?.colour ? colourText(slot.colour) : "0.3127,0.3290,100",
        ...(slot?.picture ? { "@MediaFileName": slot.picture } : {}),
      })),
    };
  });
}

function wheelNames(type: FixtureType): Map<string, ChannelFunction> {
  const made = new Map<string, ChannelFunction>();
  for (const mode of type.modes)
    for (const fn of mode.channels.flatMap((c) => c.functions)) {
      if (!isWheel(fn)) continue;
      const same = [...made].find(([, other]) => JSON.stringify(other.steps) === JSON.stringify(fn.steps));
      if (!same) made.set(made.has(fn.attribute) ? `${fn.attribute} ${mode.name}` : fn.attribute, fn);
    }
  return made;
}

function modeElement(mode: Mode, k: number): object {
  const layout = layoutOf(mode);
  const specs = parametersOf(mode, true);
  const shared = alike(mode);
  const start = shared ? Math.min(...mode.channels.flatMap((c, i) => (c.cell === 1 ? layout[i]! : []))) : 0;
  const axes = axesOf(mode);
  const place = (channel: Channel): string => {
    if (channel.cell > 0) return shared ? cellName(k) : cellOf(channel.cell, k);
    const axis = axes.find((a) => a === channel.functions[0]!.attribute);
    return axis ? axisName(axis, k) : bodyName(k);
  };
  const name = (channel: Channel): string => `${place(channel)}_${channel.functions[0]!.attribute}`;
  const channels = mode.channels.flatMap((channel, i): object[] => {
    if (shared && channel.cell > 1) return [];
    const starts = mode.breaks?.filter((from) => from <= layout[i]![0]!) ?? [];
    const before = shared && channel.cell === 1 ? start : (starts.at(-1) ?? 0);
    const slots = { part: starts.length + 1, own: layout[i]!.map((s) => s + 1 - before) };
    const spec = specs.find((s) => s.channel === i)!;
    return [channelElement(channel, spec, slots, place(channel), (c) => name(mode.channels[c]!), mode)];
  });
  const virtual = wantsVirtualDimmer(mode);
  const dimmed = mode.channels.filter((c) => /^(ColorAdd_|Dimmer$)/.test(c.functions[0]!.attribute));
  return {
    "@Name": mode.name,
    "@Geometry": bodyName(k),
    DMXChannels: [{ DMXChannel: [...channels, ...(virtual ? [virtualDimmer(bodyName(k))] : [])] }],
    ...(virtual
      ? {
          Relations: [
            {
              Relation: [...new Set(dimmed.map(name))].map((follower) => ({
                "@Name": `Dimmer of ${follower}`,
                "@Master": `${bodyName(k)}_Dimmer`,
                "@Follower": `${follower}.${follower.split("_").slice(1).join("_")}.${follower.split("_").slice(1).join("_")} 1`,
                "@Type": "Multiply",
              })),
            },
          ],
        }
      : {}),
    ...(mode.actions ? { FTMacros: [{ FTMacro: mode.actions.map((a) => macroElement(a, mode, name)) }] } : {}),
  };
}

function virtualDimmer(geometry: string): object {
  const fn = {
    "@Name": "Dimmer 1",
    "@Attribute": "Dimmer",
    "@DMXFrom": "0/1",
    "@Default": "0/1",
    "@PhysicalFrom": 0,
    "@PhysicalTo": 1,
  };
  return {
    "@DMXBreak": 1,
    "@Offset": "",
    "@Geometry": geometry,
    "@InitialFunction": `${geometry}_Dimmer.Dimmer.Dimmer 1`,
    LogicalChannel: [{ "@Attribute": "Dimmer", "@Snap": "No", ChannelFunction: [fn] }],
  };
}

function channelElement(
  channel: Channel,
  spec: ParameterSpec,
  slots: { part: number; own: readonly number[] },
  geometry: string,
  nameOf: (channel: number) => string,
  mode: Mode,
): object {
  const head = channel.functions[0]!;
  const { bytes } = channel;
  const at = (value: number) => `${value}/${bytes}`;
  const lit = channel.highlight === undefined ? "None" : at(toDmx(head, channel.highlight));
  const wheels = (fn: ChannelFunction) => (isWheel(fn) ? { "@Wheel": wheelOf(fn, mode) } : {});
  const rest = toDmx(head, spec.default);
  const hangs = (master: Master | undefined) => {
    if (!master) return {};
    const own = mode.channels[master.channel]!.bytes;
    return {
      "@ModeMaster": nameOf(master.channel),
      "@ModeFrom": `${master.from}/${own}`,
      "@ModeTo": `${master.to}/${own}`,
    };
  };
  const parts = channel.functions.flatMap((fn, k) =>
    partsOf(fn, k).map((part) => ({ fn, part, hangs: hangs(part.master) })),
  );
  const lies = ({ from, to }: (typeof parts)[number]["part"]) => rest >= from && rest <= to;
  const { part: initial } = parts.find(({ fn, part }) => fn === head && lies(part)) ?? parts[0]!;
  const functions = parts.map(({ fn, part, hangs: on }) => ({
    "@Name": part.name,
    "@Attribute": fn.attribute,
    "@DMXFrom": at(part.from),
    "@Default": at(part === initial ? rest : part.sends),
    ...physicalOf(fn, part.physical),
    ...wheels(fn),
    ...(emitterOf(fn) && fn.attribute.startsWith("ColorAdd_") ? { "@Emitter": fn.attribute } : {}),
    ...(fn.through ? { "@Filter": fn.attribute } : {}),
    ...on,
    ChannelSet: setsOf(fn, part, at),
  }));
  return {
    "@DMXBreak": slots.part,
    "@Offset": slots.own.join(","),
    "@Geometry": geometry,
    "@InitialFunction": `${geometry}_${head.attribute}.${head.attribute}.${initial.name}`,
    "@Highlight": lit,
    LogicalChannel: [
      {
        "@Attribute": head.attribute,
        "@Snap": head.steps ? "Yes" : "No",
        ChannelFunction: [...functions, ...gapsOf(parts, 256 ** bytes - 1, at)],
      },
    ],
  };
}

const wheelOf = (fn: ChannelFunction, mode: Mode): string => {
  const type = { modes: [mode] } as FixtureType;
  return (
    [...wheelNames(type)].find(
      ([, other]) => other === fn || JSON.stringify(other.steps) === JSON.stringify(fn.steps),
    )?.[0] ?? fn.attribute
  );
};

function macroElement(
  action: NonNullable<Mode["actions"]>[number],
  mode: Mode,
  name: (channel: Channel) => string,
): object {
  const channel = mode.channels.find((c) => c.functions.some((f) => f.attribute === action.attribute))!;
  const fn = channel.functions.find((f) => f.attribute === action.attribute)!;
  return {
    "@Name": action.does,
    MacroDMX: [
      {
        MacroDMXStep: [
          {
            "@Duration": action.seconds,
            MacroDMXValue: [{ "@Value": `${toDmx(fn, action.value)}/${channel.bytes}`, "@DMXChannel": name(channel) }],
          },
        ],
      },
    ],
  };
}
