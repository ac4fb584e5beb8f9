"use client";

import { usePathname } from "next/navigation";
import { listsByNumber } from "@/core/show/world";
import { useShow } from "../useSession";
import { Lane } from "./Lane";
import classes from "./Deck.module.css";

/** The playbacks, along the bottom of every place but Rig, and of Run, which has them larger. */
export function Deck() {
  const path = usePathname();
  const show = useShow((s) => s.world.show);
  if (path.endsWith("/rig") || path.endsWith("/run")) return null;
  return (
    <footer className={classes.deck} aria-label="Deck" tabIndex={0}>
      {listsByNumber(show).map((list) => (
        <Lane key={list.id} list={list} />
      ))}
    </footer>
  );
}
