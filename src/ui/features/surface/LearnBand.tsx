"use client";

import { Button } from "@mantine/core";
import { doesText } from "@/core/surface/mapping";
import { useShow } from "@/ui/show/useSession";
import { useSurfaceState } from "./useSurface";
import classes from "./Surface.module.css";

/** While a surface is learned, said where it cannot be overlooked. */
export function LearnBand() {
  const show = useShow((s) => s.world.show);
  const { learns, wanted } = useSurfaceState();
  if (!learns) return null;
  return (
    <div className={classes.learn} role="status" data-testid="learning">
      {wanted
        ? `Now move the control for the ${doesText(show, wanted)}`
        : "Learning: press a lane, a button, a pad or the grand master on the screen"}
      <Button
        size="compact-sm"
        variant="default"
        data-learn-end
        onClick={() => useSurfaceState.setState({ learns: false, wanted: null })}
      >
        Done
      </Button>
    </div>
  );
}
