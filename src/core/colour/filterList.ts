/** A list of filter colours of our own, to be asked for by name: `colour filter "Bottle glass"`. */

export interface FilterColour {
  name: string;
  /** As the screen shows it; its chromaticity is what is set. */
  hex: string;
}

export const FILTER_COLOURS: readonly FilterColour[] = (
  [
    ["Wick", "#ffd9a0"],
    ["Lamp oil", "#ffcb7a"],
    ["Straw bale", "#ffe08a"],
    ["Sandbank", "#f6dcae"],
    ["Biscuit", "#f3c48b"],
    ["Marigold", "#ffab2e"],
    ["Buoy orange", "#ff7a1a"],
    ["Rust", "#d9541e"],
    ["Brick quay", "#c8432b"],
    ["Signal red", "#ff1f1f"],
    ["Port light", "#e8102c"],
    ["Cochineal", "#c4103f"],
    ["Rowan berry", "#ff3d4f"],
    ["Salmon run", "#ff8f78"],
    ["Shell pink", "#ffc4bb"],
    ["Dog rose", "#ff9fb4"],
    ["Thrift", "#ff77a8"],
    ["Foxglove", "#e84fa8"],
    ["Heather", "#c58ad8"],
    ["Mussel", "#6a4fb0"],
    ["Squill", "#8f7dff"],
    ["Lavender rope", "#c3b4ff"],
    ["Violet hour", "#7a3cff"],
    ["Ink", "#2a1fd0"],
    ["Deep water", "#0f3cff"],
    ["North sea", "#2468d8"],
    ["Slate sky", "#7fa3c9"],
    ["Winter noon", "#cfe3ff"],
    ["Frost", "#e4f1ff"],
    ["Moon on tin", "#b9d2f2"],
    ["Shallows", "#58c8ff"],
    ["Glacier", "#9be8ff"],
    ["Lagoon", "#18d6d6"],
    ["Verdigris", "#2fc9a0"],
    ["Bottle glass", "#149a63"],
    ["Starboard light", "#10d060"],
    ["Kelp", "#4f9a2a"],
    ["Sea lettuce", "#8fe03a"],
    ["Lichen", "#c9e06a"],
    ["Gorse", "#ffe420"],
  ] as const
).map(([name, hex]) => ({ name, hex }));

/** The filter of that name, whatever the case; undefined where there is none. */
export const filterNamed = (name: string): FilterColour | undefined =>
  FILTER_COLOURS.find((f) => f.name.toLowerCase() === name.trim().toLowerCase());
