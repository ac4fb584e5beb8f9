/** The palettes of the demo show, as lines: each is set on fixtures, recorded, and let go of. */

const keep = (number: number, name: string, how: string, ...set: string[]): string[] => [
  "spread",
  ...set,
  `record palette ${number} "${name}" ${how}`,
  "clear",
];

const colour = (number: number, name: string, hex: string): string[] =>
  keep(number, name, "any only colour", `21 colour at ${hex}`);

export const PALETTES = [
  ...keep(1, "Full", "any", "1 at full"),
  ...keep(2, "Glow", "any", "1 at 30"),
  ...keep(3, "Half", "any", "1 at 50"),
  ...keep(4, "Pilot light", "any", "1 at 8"),

  ...keep(21, "Lighthouse", "any", "1 thru 12 aim at 0 5.2 1.5"),
  ...keep(22, "Deck centre", "any", "1 thru 12 aim at 0 2.4 0"),
  ...keep(23, "Bow rail", "any", "1 thru 12 aim at 0 -0.4 0.5"),
  ...keep(24, "Keeper's chair", "any", "6 + 7 aim at 1.2 3.1 1"),
  ...keep(25, "Fan out", "each", "1 thru 12 pan at 40 to -40 tilt at 30"),
  ...keep(26, "Straight across", "each", "1 thru 12 pan at 16 to -16 tilt at 38"),
  ...keep(
    27,
    "Rails inward",
    "each",
    "21 thru 28 pan at 90 to 74 tilt at 62 to 48",
    "29 thru 36 pan at -90 to -74 tilt at 62 to 48",
  ),
  ...keep(28, "Night sky", "type", "1 pan at 180 tilt at 60", "21 pan at 180 tilt at 75"),

  ...colour(41, "Harbour blue", "#1c3f9c"),
  ...colour(42, "Shallows", "#2a55d8"),
  ...colour(43, "Lantern gold", "#ff7d08"),
  ...colour(44, "Candle", "#ff8a18"),
  ...colour(45, "Kelp", "#2ad1c9"),
  ...colour(46, "Moon", "#cfe6ff"),
  ...colour(47, "Storm violet", "#6b35d8"),
  ...colour(48, "Bruise", "#4a1fa8"),
  ...colour(49, "Wreck red", "#ff1208"),
  ...colour(50, "Distress", "#ff3008"),
  ...colour(51, "Calm water", "#12308c"),
  ...colour(52, "Dawn peach", "#ff6a28"),
  ...colour(53, "Dawn rose", "#ff6a58"),
  ...keep(54, "Work white", "any only colour", "21 colour at 4200K"),

  ...keep(61, "Nets", "type", "1 gobo at 3"),
  ...keep(62, "Gulls", "type", "1 gobo at 4"),
  ...keep(63, "Ripples turning", "type", "1 gobo at 2 gobo spin at 3"),
  ...keep(64, "Open gate", "type", "1 gobo at 1 gobo spin at 0"),

  ...keep(71, "Slow strobe", "type", "1 strobe at 3", "21 strobe at 3", "91 strobe at 3"),
  ...keep(72, "Lightning", "type", "1 strobe at 14", "21 strobe at 14", "91 strobe at 12"),
  ...keep(73, "Prism turning", "type", "1 prism at 1 Prism1PosRotate at 6"),

  ...keep(81, "Pin", "type", "1 zoom at 6 iris at 60", "21 zoom at 8"),
  ...keep(82, "Narrow", "type", "1 zoom at 12", "21 zoom at 14"),
  ...keep(83, "Wide", "type", "1 zoom at 32", "21 zoom at 40"),
  "36 zoom at 34",
  "update palette 83",
  "clear",
  ...keep(84, "Soft", "type", "1 frost at 60 focus at 20"),

  ...keep(91, "Haze, low", "type", "99 Fog1 at 20 Fan1 at 20"),
  ...keep(92, "Fog bank", "type", "99 Fog1 at 70 Fan1 at 45"),
  ...keep(93, "Lighthouse beam", "type", "1 zoom at 7 gobo at 1 colour at #ffc880"),
  "none",
];
