"use client";

import { RoomView } from "../room/RoomView";
import { StagePlan } from "./StagePlan";
import { useStageTools } from "./stageTools";

/** The stage: from above, or as a room in three dimensions. */
export const Stage = () => (useStageTools((s) => s.room) ? <RoomView /> : <StagePlan />);
