"use client";

import { listsByNumber } from "@/core/show/world";
import { useShow } from "@/ui/show/useSession";
import { usePage } from "@/ui/show/playing/usePage";
import { usePlace } from "@/ui/show/addresses/places";
import { Lane } from "./Lane";
import classes from "@/ui/features/cues/Lanes.module.css";

/** The playbacks of the page in use, along the bottom of every place but Rig, and of Run, which has them larger. */
export function Deck() {
  const place = usePlace();
  const show = useShow((s) => s.world.show);
  const [page] = usePage();
  const onPage = page
    ? Object.entries(page.places)
        .sort(([a], [b]) => Number(a) - Number(b))
        .flatMap(([, of]) => (of.what === "list" && of.as === "lane" ? (show.lists[of.id] ?? []) : []))
    : [];
  const lists = onPage.length > 0 ? onPage : listsByNumber(show);
  if (place === "rig" || place === "run") return null;
  return (
    <footer className={classes.deck} aria-label="Deck" tabIndex={0}>
      {lists.map((list) => (
        <Lane key={list.id} list={list} />
      ))}
    </footer>
  );
}
