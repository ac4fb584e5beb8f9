/** Every intent there is. */
import * as cue from "./cue/intents/intents";
import * as record from "./cue/intents/recordIntents";
import * as steps from "./cue/intents/stepIntents";
import * as patch from "./patch/intents";
import * as scenery from "./patch/sceneryIntents";
import * as output from "./dmx/outputIntents";
import * as universe from "./patch/universeIntents";
import * as program from "./program/intents";
import { importAscii } from "./exchange/asciiIntent";
import { bringFrom } from "./exchange/bringIntent";
import { importFixtures } from "./exchange/importIntent";
import { bringParts } from "./exchange/mvr/partsIntent";
import * as group from "./select/groupIntents";
import * as select from "./select/intents";
import { startGroups } from "./select/starterGroups";
import { registryOf } from "./show/change/intent";
import * as palette from "./palette/intents";
import { deletePalette, orderPalettes, replacePalette, shelvePalettes } from "./palette/goneIntents";
import * as effect from "./effect/intents";
import { deleteWave, recordWave } from "./effect/waveIntents";
import { writeCue } from "./cue/intents/writeCueIntent";
import { bringBack, dropSignature, signOff } from "./cue/intents/signIntents";
import * as deck from "./deck/intents";
import { setTimecode, shiftTimes } from "./deck/timecodeIntent";
import { clean } from "./cue/intents/cleanIntent";
import { deleteList, duplicateList } from "./cue/intents/listIntents";
import { copyCue } from "./cue/intents/copyIntent";
import { fromVersion } from "./cue/intents/fromVersionIntent";
import { hardenCue } from "./cue/intents/hardIntent";
import { dropLinks, writePalette } from "./palette/writeIntent";
import { startPalettes } from "./palette/startIntent";
import { correctHang } from "./program/hangIntent";
import { nameShow } from "./show/change/nameShow";
import { copyProgramming, duplicateFixtures } from "./rig/duplicateIntent";
import { putType, removeType } from "./rig/typeIntent";
import { swapType } from "./rig/swapIntent";
import { restoreShow } from "./show/change/restore";

export const INTENTS = registryOf([
  restoreShow,
  fromVersion,
  deck.recordMacro,
  deck.recordPage,
  deck.duplicatePage,
  deck.renumberPage,
  deck.putOnPage,
  deck.recordView,
  deck.deleteOfDeck,
  deck.nameOfDeck,
  setTimecode,
  shiftTimes,
  nameShow,
  bringFrom,
  putType,
  removeType,
  swapType,
  duplicateFixtures,
  copyProgramming,
  select.select,
  select.setSpread,
  select.step,
  select.order,
  group.recordGroup,
  group.nameGroup,
  group.deleteGroup,
  group.changeGroup,
  group.duplicateGroup,
  group.setGroup,
  group.orderGroups,
  palette.recordPalette,
  palette.updatePalette,
  palette.setPalette,
  palette.referPalette,
  palette.exceptPalette,
  palette.foldPalette,
  palette.widenPalette,
  deletePalette,
  replacePalette,
  startPalettes,
  startGroups,
  writePalette,
  dropLinks,
  hardenCue,
  effect.recordEffect,
  effect.updateEffect,
  effect.setEffect,
  effect.setVoice,
  effect.dropVoice,
  effect.muteVoices,
  effect.deleteEffect,
  recordWave,
  deleteWave,
  orderPalettes,
  shelvePalettes,
  program.hold,
  program.drop,
  program.clear,
  program.keepOut,
  program.setBlind,
  program.setHighlight,
  program.identify,
  correctHang,
  program.park,
  program.unpark,
  program.arm,
  patch.patch,
  patch.address,
  patch.unpatch,
  patch.renumber,
  patch.setFixtures,
  patch.remove,
  universe.copyUniverse,
  universe.unpatchUniverse,
  output.setOutputs,
  output.setWire,
  importFixtures,
  bringParts,
  importAscii,
  scenery.drawScenic,
  scenery.eraseScenic,
  record.recordCue,
  record.updateCue,
  record.takeCue,
  steps.recordSteps,
  cue.setCue,
  cue.playEffect,
  copyCue,
  writeCue,
  cue.deleteCue,
  cue.blockCue,
  cue.unblockCue,
  cue.moveCue,
  cue.renumberCues,
  cue.setList,
  clean,
  signOff,
  dropSignature,
  bringBack,
  deleteList,
  duplicateList,
]);
