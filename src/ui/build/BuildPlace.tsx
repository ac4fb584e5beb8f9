"use client";

import { StagePlan } from "../stage/StagePlan";
import { GroupPanel } from "./GroupPanel";
import { OrderPanel } from "./OrderPanel";
import { Programmer } from "./Programmer";
import { SpreadPanel } from "./SpreadPanel";
import classes from "./Build.module.css";

/** Groups and order, the stage, the programmer. */
export function BuildPlace() {
  return (
    <div className={classes.build}>
      <div className={classes.left}>
        <GroupPanel />
        <OrderPanel />
        <SpreadPanel />
      </div>
      <StagePlan />
      <Programmer />
    </div>
  );
}
