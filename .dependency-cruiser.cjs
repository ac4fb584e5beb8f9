// The layers of the product: imports point down only.
const layers = ["app", "offline", "ui", "session", "engine", "bridge", "standin", "server", "cli", "picture", "core"];
const above = Object.fromEntries(
  layers.map((layer, i) => [layer, layers.slice(0, i)]).filter(([, higher]) => higher.length > 0),
);
// Inside core the folders have an order too: each builds on those before it.
const core = [
  "units",
  "timecode",
  "colour",
  "fixture",
  "show",
  "patch",
  "select",
  "palette",
  "effect",
  "program",
  "cue",
  "rig",
  "deck",
  "play",
  "surface",
  "dmx",
  "exchange",
  "check",
  "command",
  "desk",
];
// The interface is a house of floors; what two rooms of one floor need stands a floor lower.
const floors = ["base", "show", "stage", "features", "places", "shell"];
const rooms = ["features", "places"];
// Neither the browser's side nor the stand-ins may run the processes of the other.
const types = "messages\\.ts$";

module.exports = {
  forbidden: [
    { name: "no-circular", comment: "types included", severity: "error", from: {}, to: { circular: true } },
    ...core.slice(0, -1).map((folder, i) => ({
      name: `core-${folder}-builds-down-only`,
      severity: "error",
      from: { path: `^src/core/${folder}/`, pathNot: "\\.test\\.ts$" },
      to: { path: `^src/core/((${core.slice(i + 1).join("|")}|demo)/|intents\\.ts)` },
    })),
    ...Object.entries(above).map(([layer, others]) => ({
      name: `${layer}-imports-down-only`,
      severity: "error",
      from: { path: `^src/${layer}/` },
      to: { path: `^src/(${others.join("|")})/` },
    })),
    ...floors.slice(0, -1).map((floor, i) => ({
      name: `ui-${floor}-builds-down-only`,
      severity: "error",
      from: { path: `^src/ui/${floor}/` },
      to: { path: `^src/ui/((${floors.slice(i + 1).join("|")}|picker|outside)/|[^/]+$)` },
    })),
    ...rooms.map((floor) => ({
      name: `ui-${floor}-stand-apart`,
      severity: "error",
      from: { path: `^src/ui/${floor}/([^/]+)/` },
      to: { path: `^src/ui/${floor}/`, pathNot: `^src/ui/${floor}/$1/` },
    })),
    {
      name: "processes-apart",
      comment: "browser code knows of bridge and stand-in only their messages",
      severity: "error",
      from: { path: "^src/(app|ui|session|engine)/" },
      to: { path: "^src/(bridge|standin|server)/", pathNot: types },
    },
    {
      name: "core-is-pure",
      comment: "core has no interface code, no Node and no browser",
      severity: "error",
      from: { path: "^src/core/", pathNot: "\\.test\\.ts$" },
      to: {
        path: "^(react|react-dom|next|idb|zustand|@mantine|@tabler|ws)|node_modules/(react|react-dom|next|idb|zustand|@mantine|@tabler|ws)/",
      },
    },
    {
      name: "core-without-node",
      severity: "error",
      from: { path: "^src/core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "product-without-tests",
      severity: "error",
      from: { path: "^src/", pathNot: "\\.test\\.tsx?$" },
      to: { path: "\\.test\\.tsx?$|^tests/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
  },
};
