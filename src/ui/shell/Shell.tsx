"use client";

import { Button, Center, Loader, Stack, Text } from "@mantine/core";
import Link from "next/link";
import { useEffect, useState, type ReactNode } from "react";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { startSession, type Session } from "@/session/session";
import { openForUse } from "@/session/open";
import { Deck } from "../deck/Deck";
import { SessionContext } from "../useSession";
import { HouseDim } from "./HouseDim";
import { Notices } from "./Notices";
import { Rail } from "./Rail";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";
import { WhyPanel } from "../why/WhyPanel";
import classes from "./Shell.module.css";

type Status = { kind: "opening" } | { kind: "elsewhere" } | { kind: "failed"; why: string } | { kind: "open"; session: Session };

/** Opens a show in this window and puts the frame of the product around its places. */
export function Shell({ showId, children }: { showId: string; children: ReactNode }) {
  const [status, setStatus] = useState<Status>({ kind: "opening" });

  useEffect(() => {
    const stop = new AbortController();
    let session: Session | undefined;
    const host = async () => {
      const opened = await openForUse(showId);
      if (stop.signal.aborted) return;
      if (isRefusal(opened)) return setStatus({ kind: "failed", why: refusalText(opened) });
      session = startSession(showId, opened);
      setStatus({ kind: "open", session });
      await new Promise<void>((resolve) => stop.signal.addEventListener("abort", () => resolve()));
      await session.flush().catch(() => undefined);
      session.close();
    };
    const failed = (error: unknown) => {
      if (!stop.signal.aborted) setStatus({ kind: "failed", why: error instanceof Error ? error.message : "the show could not be opened" });
    };
    // One window hosts a show; the next one waits for it.
    const waitingSign = setTimeout(() => setStatus((now) => (now.kind === "opening" ? { kind: "elsewhere" } : now)), 1500);
    navigator.locks
      .request(`bold-comet-show-${showId}`, { signal: stop.signal }, () => {
        clearTimeout(waitingSign);
        return host();
      })
      .catch(failed);
    return () => {
      clearTimeout(waitingSign);
      stop.abort();
    };
  }, [showId]);

  if (status.kind !== "open") return <NotOpen status={status} />;
  return (
    <SessionContext.Provider value={status.session}>
      <Frame>{children}</Frame>
    </SessionContext.Provider>
  );
}

function NotOpen({ status }: { status: Exclude<Status, { kind: "open" }> }) {
  return (
    <Center h="100dvh">
      <Stack align="center" gap="sm">
        {status.kind === "opening" && <Loader color="mint" aria-label="Opening the show" />}
        {status.kind === "elsewhere" && <Text>This show is open in another window. It opens here when that one is closed.</Text>}
        {status.kind === "failed" && <Text role="alert">{status.why}</Text>}
        {status.kind !== "opening" && <Button component={Link} href="/" variant="default">All shows</Button>}
      </Stack>
    </Center>
  );
}

function Frame({ children }: { children: ReactNode }) {
  useKeys();
  return (
    <div className={classes.frame}>
      <TopBar />
      <Rail />
      <main className={classes.place}>{children}</main>
      <Deck />
      <Notices />
      <WhyPanel />
      <HouseDim.Veil />
    </div>
  );
}
