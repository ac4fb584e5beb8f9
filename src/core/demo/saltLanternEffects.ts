/** The effects and waves of the demo show, as lines: each is held, recorded, and let go of. */

const keep = (number: number, name: string, how: string, ...set: string[]): string[] => [
  ...set,
  `record effect ${number} "${name}" ${how}`,
  "clear",
];

export const EFFECTS = [
  'record wave "Heave" points 0 0, 22 100, 48 62, 70 78, 100 0 smooth',
  'record wave "Eddy" points 0 50, 25 100, 50 50, 75 0, 100 50 smooth second 0 100, 20 62, 50 0, 80 62, 100 100',

  ...keep(1, "Lanterns breathe", "cast", "41 thru 64", "spread mirror 2", "dimmer wave sine low 18 high 70 bpm 9"),
  ...keep(
    2,
    "Harbour colours",
    "cast",
    "21 thru 36",
    "spread by centre",
    "colour stops palette 42 hold 30 smooth palette 45 hold 30 smooth palette 41 hold 30 smooth bpm 4",
  ),
  ...keep(
    3,
    "Waterline run",
    "cast",
    "71 thru 76 cells",
    "spread",
    "dimmer wave triangle low 10 high full bpm 20 across 720",
  ),
  ...keep(
    4,
    "Lighthouse sweep",
    "cast",
    "1 thru 12",
    "spread",
    "pan wave sine low palette 26 high palette 25 bpm 5 across 180 tilt wave sine low palette 26 high palette 25 bpm 5 across 180",
  ),
  ...keep(
    5,
    "Ring",
    "open",
    "1 thru 12",
    "pan wave sine relative size 8 bpm 15 tilt wave sine relative size 5 bpm 15 start 90",
  ),
  ...keep(6, "Squall", "cast", "91 thru 94", "dimmer wave random low 0 high 90 bpm 160"),
  ...keep(7, "Odd and even", "open", "81 thru 86", "spread repeat 2", "dimmer wave square low 20 high 80 bpm 40"),
  ...keep(8, "Gel walk", "cast", "96 + 97", "spread", "wheel stops 2 snap 5 snap 7 snap 9 snap bpm 6 across 180"),
  ...keep(9, "Heave and settle", "cast", "group 6", 'dimmer wave "Heave" relative size 14 bpm 10'),
  ...keep(
    10,
    "Eddies",
    "open",
    "1 thru 12",
    "spread mirror 2",
    'pan wave "Eddy" relative size 12 bpm 6 tilt wave "Eddy" relative size 6 bpm 6',
  ),
  "spread",
  "none",
];
