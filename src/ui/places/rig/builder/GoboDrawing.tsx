"use client";

import { Button, Group, SegmentedControl, Stack } from "@mantine/core";
import { useEffect, useRef, useState, type PointerEvent } from "react";

const SIZE = 64;
const SHOWN = 192;

/** A gobo drawn by hand: where there is light. @param start PNG, base64. */
export function GoboDrawing({ start, onDone }: { start: string | undefined; onDone(png: string): void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [light, setLight] = useState(true);
  const wipe = () => {
    const c = canvas.current!.getContext("2d")!;
    c.fillStyle = "#000";
    c.fillRect(0, 0, SIZE, SIZE);
  };
  useEffect(() => {
    wipe();
    if (start === undefined) return;
    const image = new Image();
    image.onload = () => canvas.current?.getContext("2d")!.drawImage(image, 0, 0, SIZE, SIZE);
    image.src = `data:image/png;base64,${start}`;
  }, [start]);
  const draw = (event: PointerEvent<HTMLCanvasElement>) => {
    if (event.buttons !== 1) return;
    const box = event.currentTarget.getBoundingClientRect();
    const c = event.currentTarget.getContext("2d")!;
    c.fillStyle = light ? "#fff" : "#000";
    c.beginPath();
    c.arc(((event.clientX - box.left) / box.width) * SIZE, ((event.clientY - box.top) / box.height) * SIZE, 3, 0, 7);
    c.fill();
  };
  return (
    <Stack gap="xs">
      <canvas
        ref={canvas}
        width={SIZE}
        height={SIZE}
        aria-label="Draw where light comes through"
        style={{
          width: SHOWN,
          height: SHOWN,
          borderRadius: "50%",
          border: "1px solid var(--line)",
          touchAction: "none",
          cursor: "crosshair",
        }}
        onPointerDown={(e) => (e.currentTarget.setPointerCapture(e.pointerId), draw(e))}
        onPointerMove={draw}
      />
      <SegmentedControl
        size="xs"
        value={light ? "light" : "dark"}
        onChange={(v) => setLight(v === "light")}
        data={["light", "dark"]}
      />
      <Group gap="xs">
        <Button size="compact-sm" variant="default" onClick={wipe}>
          Clear
        </Button>
        <Button size="compact-sm" onClick={() => onDone(canvas.current!.toDataURL("image/png").split(",")[1]!)}>
          Use it
        </Button>
      </Group>
    </Stack>
  );
}
