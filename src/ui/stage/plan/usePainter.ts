"use client";

import { useCallback, useEffect, useRef, type RefObject } from "react";
import { PaceSchema, type ToPainter } from "./messages";

/** A canvas painted by a worker of its own, put into an element. @returns a way to tell it things. */
export function usePainter(host: RefObject<HTMLElement | null>, className: string): (message: ToPainter) => void {
  const painter = useRef<Worker | null>(null);
  useEffect(() => {
    const element = document.createElement("canvas");
    element.className = className;
    host.current!.prepend(element);
    const worker = new Worker(new URL("./painter.worker.ts", import.meta.url), { type: "module", name: "painter" });
    const canvas = element.transferControlToOffscreen();
    worker.postMessage({ kind: "canvas", canvas } satisfies ToPainter, [canvas]);
    worker.addEventListener("message", ({ data }: MessageEvent) => {
      const pace = PaceSchema.safeParse(data);
      if (pace.success && host.current)
        host.current.dataset.pace = `${pace.data.frames.toFixed(1)} ${pace.data.ms.toFixed(2)}`;
    });
    painter.current = worker;
    return () => {
      painter.current = null;
      worker.terminate();
      element.remove();
    };
  }, [host, className]);
  return useCallback((message: ToPainter) => painter.current?.postMessage(message), []);
}
