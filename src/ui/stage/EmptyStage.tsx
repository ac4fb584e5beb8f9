"use client";

import { Button } from "@mantine/core";
import { usePlaces } from "@/ui/show/addresses/places";
import classes from "./Stage.module.css";

/** A stage without lamps leads to where they are patched. */
export function EmptyStage() {
  const { go } = usePlaces();
  return (
    <div className={classes.empty}>
      <div>
        <p>The stage is empty.</p>
        <Button size="sm" onClick={() => go("rig")}>
          Patch the first fixtures
        </Button>
        <p>or type: patch 12 petrel-spot</p>
      </div>
    </div>
  );
}
