"use client";

import { StagePlan } from "../stage/StagePlan";
import { GroupPanel } from "./GroupPanel";
import { OrderPanel } from "./OrderPanel";
import { Programmer } from "./Programmer";
import classes from "./Build.module.css";

/** Groups and order, the stage, the programmer. */
export function BuildPlace() {
  return (
    <div className={classes.build}>
      <div className={classes.left}>
        <GroupPanel />
        <OrderPanel />
      </div>
      <StagePlan />
      <Programmer />
    </div>
  );
}
