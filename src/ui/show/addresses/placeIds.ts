/** The five places of a show, as addresses name them. */
export const PLACE_IDS = ["rig", "build", "cues", "run", "check"] as const;
export type PlaceId = (typeof PLACE_IDS)[number];

export const isPlace = (text: string | undefined): text is PlaceId => PLACE_IDS.some((id) => id === text);

/** The place of an address, /show/SHOW/PLACE. */
export function placeOf(path: string): PlaceId {
  const text = path.split("/")[3];
  return isPlace(text) ? text : "build";
}
