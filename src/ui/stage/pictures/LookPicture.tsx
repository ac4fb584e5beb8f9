"use client";

import { useComputedColorScheme } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import type { Show } from "@/core/show/schema";
import { useSession, useShow } from "@/ui/show/useSession";
import { whenResting } from "@/ui/base/gestures/resting";
import classes from "@/ui/base/parts/parts.module.css";

interface Props {
  list: string;
  cue: string;
  width: number;
  height: number;
  /** As the line that is foreseen would make it; a new value asks again. */
  then?: unknown;
  /** In another version of the show. */
  of?: Show | undefined;
  /** On its way in: so many seconds after its go. */
  at?: number;
  /** The look it was signed off with. */
  signed?: boolean;
  /** Fixtures that are ringed. */
  marks?: readonly string[];
  /** On paper: painted whether it is in sight or not, on a light ground. Tells when it is there. */
  onPaper?(): void;
  label: string;
}

/** Edits that follow each other closely are painted once. */
const SETTLED_MS = 60;

/** The small picture of a cue's look, painted beside the hands. */
export function LookPicture({ list, cue, width, height, then, signed = false, of, at, marks, onPaper, label }: Props) {
  const session = useSession();
  const canvas = useRef<HTMLCanvasElement>(null);
  const content = useRef("");
  const printed = onPaper !== undefined;
  const light = useComputedColorScheme("dark") === "light";
  const daylight = printed || light;
  const told = useRef(onPaper);
  useEffect(() => void (told.current = onPaper));
  const cues = useShow((s) => s.world.show.lists[list]?.cues);
  const { palettes, effects, waves, fixtures, types, scenery } = useShow((s) => s.world.show);
  const [none, setNone] = useState(false);
  const [seen, setSeen] = useState(printed);
  // Painted for what is in sight only.
  useEffect(() => {
    if (printed) return;
    const observer = new IntersectionObserver(([entry]) => setSeen(entry!.isIntersecting));
    observer.observe(canvas.current!.parentElement!);
    return () => observer.disconnect();
  }, [printed]);
  useEffect(() => {
    if (!seen) return;
    let cancel: (() => void) | undefined;
    const ask = () => {
      cancel = session.picture(
        {
          list,
          cue,
          width: Math.round(width * devicePixelRatio),
          height: Math.round(height * devicePixelRatio),
          daylight,
          have: content.current,
          then: then !== undefined,
          ...(of ? { show: of } : {}),
          ...(signed ? { signed } : {}),
          ...(at === undefined ? {} : { at }),
          ...(marks ? { marks: [...marks] } : {}),
        },
        (got, bitmap) => {
          setNone(got === "");
          told.current?.();
          if (got === "") content.current = "";
          if (!bitmap || !canvas.current) return bitmap?.close();
          content.current = got;
          canvas.current.width = bitmap.width;
          canvas.current.height = bitmap.height;
          canvas.current.getContext("bitmaprenderer")!.transferFromImageBitmap(bitmap);
        },
      );
    };
    let leave: (() => void) | undefined;
    const timer = setTimeout(
      () => (leave = whenResting(ask)),
      content.current === "" || at !== undefined ? 0 : SETTLED_MS,
    );
    return () => {
      clearTimeout(timer);
      leave?.();
      cancel?.();
    };
  }, [
    seen,
    session,
    list,
    cue,
    cues,
    width,
    height,
    then,
    marks,
    signed,
    of,
    at,
    daylight,
    palettes,
    effects,
    waves,
    fixtures,
    types,
    scenery,
  ]);
  return (
    <span className={classes.look} style={{ width, height }} role="img" aria-label={label} data-none={none}>
      <canvas ref={canvas} data-testid="look" style={{ width, height }} />
    </span>
  );
}
