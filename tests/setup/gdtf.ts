/** GDTF files as other hands write them, piece by piece. */
import { strToU8, zipSync } from "fflate";

export const zipped = (xml: string, more: Record<string, Uint8Array> = {}) =>
  zipSync({ "description.xml": strToU8(xml), ...more });
export const description = (inner: string, name = "Hand Lamp") =>
  `<?xml version="1.0" encoding="UTF-8"?><GDTF DataVersion="1.2"><FixtureType Name="${name}" ShortName="HL" LongName="${name}" Manufacturer="Brine &amp; Sons" Description="" FixtureTypeID="6F8C2A54-9C1B-4E0E-8B51-0A2E5D6C7B81">${inner}</FixtureType></GDTF>`.replaceAll(
    "<DMXChannel ",
    "\r\n<DMXChannel ",
  );
export const fn = (attribute: string, more = "", sets = "") =>
  `<ChannelFunction Name="${attribute} 1" Attribute="${attribute}" DMXFrom="0/1" Default="0/1" PhysicalFrom="0" PhysicalTo="1" ${more}>${sets}</ChannelFunction>`;
export const channel = (offset: string, geometry: string, attribute: string, functions = fn(attribute), more = "") =>
  `<DMXChannel DMXBreak="1" Offset="${offset}" Geometry="${geometry}" Highlight="255/1" ${more}><LogicalChannel Attribute="${attribute}">${functions}</LogicalChannel></DMXChannel>`;
export const mode = (channels: string, name = "Basic", geometry = "Base") =>
  `<DMXModes><DMXMode Name="${name}" Geometry="${geometry}"><DMXChannels>${channels}</DMXChannels></DMXMode></DMXModes>`;
export const BASE = `<Geometries><Geometry Name="Base" Position="{1,0,0,0}{0,1,0,0}{0,0,1,0}{0,0,0,1}"><Beam Name="Lens" BeamAngle="19" LuminousFlux="4200" PowerConsumption="750"/></Geometry></Geometries>`;
