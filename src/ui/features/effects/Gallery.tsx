"use client";

import { GALLERY } from "@/core/effect/gallery";
import { drivenBy } from "@/core/effect/casting";
import { holdVoices } from "@/core/command/voices";
import { useSession, useShow } from "@/ui/show/useSession";
import { editEffect } from "@/ui/show/effects/editing";
import { VoicePicture } from "@/ui/stage/pictures/VoicePicture";
import classes from "./Effects.module.css";

/** Ready effects, each shown moving; pressed, it is held on the selection and opened. */
export function Gallery() {
  const session = useSession();
  const { show, hands } = useShow((s) => s.world);
  const items = hands.selection;
  return (
    <ul className={classes.gallery} aria-label="Ready effects">
      {GALLERY.map(({ name, about, voices }) => {
        const fits = items.slice(0, 200).some((i) => voices.some((v) => drivenBy(show, i, v).length > 0));
        return (
          <li key={name}>
            <button
              type="button"
              disabled={!fits}
              title={
                fits
                  ? `${name}: ${about}. Press to hold it on the selection, then edit it`
                  : items.length > 0
                    ? `Nothing selected can do this: ${about}`
                    : `Select fixtures first: ${about}`
              }
              onClick={() => {
                if (!session.hold((b) => holdVoices(b, voices, name.toLowerCase()))) editEffect("held");
              }}
            >
              <VoicePicture voice={voices[0]!} items={items} />
              {name}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
