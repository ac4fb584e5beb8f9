"use client";

import { RoomView } from "./room/RoomView";
import { StagePlan } from "./plan/StagePlan";
import { useStageTools } from "./stageTools";

/** The stage: from above, or as a room in three dimensions. @param live whether it is the live stage, whatever is worked on blind. */
export const Stage = ({ live = false }: { live?: boolean }) =>
  useStageTools((s) => s.room) ? <RoomView live={live} /> : <StagePlan live={live} />;
