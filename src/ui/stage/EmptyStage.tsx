"use client";

import { Button } from "@mantine/core";
import { useRouter } from "next/navigation";
import { usePlaceHref } from "../shell/placeHref";
import classes from "./Stage.module.css";

/** A stage without lamps leads to where they are patched. */
export function EmptyStage() {
  const router = useRouter();
  const href = usePlaceHref();
  return (
    <div className={classes.empty}>
      <div>
        <p>The stage is empty.</p>
        <Button size="sm" onClick={() => router.push(href("rig"))}>
          Patch the first fixtures
        </Button>
        <p>or type: patch 12 petrel-spot</p>
      </div>
    </div>
  );
}
