"use client";

import { Button, Center, Loader, Stack, Text } from "@mantine/core";
import Link from "next/link";
import { useEffect, useState, type ReactNode } from "react";
import { isRefusal, refusalText } from "@/core/show/refusal";
import { startSession, type Session } from "@/session/session";
import { joinHost, type Guest } from "@/session/guest";
import { openForUse, takeOver } from "@/session/open";
import { Deck } from "../deck/Deck";
import { useStillPage } from "../parts/scrub";
import { SessionContext } from "../useSession";
import { HouseDim } from "./HouseDim";
import { Notices } from "./Notices";
import { Rail } from "./Rail";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";
import { WhyPanel } from "../why/WhyPanel";
import classes from "./Shell.module.css";

type Status = { kind: "opening" } | { kind: "failed"; why: string } | { kind: "open"; session: Session };

/** Opens a show in this window and puts the frame of the product around its places. */
export function Shell({ showId, children }: { showId: string; children: ReactNode }) {
  const [status, setStatus] = useState<Status>({ kind: "opening" });

  useEffect(() => {
    const stop = new AbortController();
    const { signal } = stop;
    let session: Session | undefined;
    let guest: Guest | undefined;
    const show = (made: Session) => {
      session = made;
      if (signal.aborted) return made.close();
      // Shown once its stage is there: nothing looks released that is not, and a hand-over leaves the place as it is.
      const put = () => !signal.aborted && setStatus({ kind: "open", session: made });
      if (made.store.getState().view) return void put();
      const unwatch = made.store.subscribe((now) => {
        if (!now.view) return;
        unwatch();
        put();
      });
    };
    const failed = (error: unknown) => {
      if (!signal.aborted) setStatus({ kind: "failed", why: error instanceof Error ? error.message : "the show could not be opened" });
    };
    // One window hosts a show; the others are in step with it, and the first of them takes over when it closes.
    const host = async () => {
      const opened = guest ? await takeOver(showId, guest) : await openForUse(showId);
      if (signal.aborted) return;
      if (isRefusal(opened)) return setStatus({ kind: "failed", why: refusalText(opened) });
      guest?.session.close();
      guest = undefined;
      show(startSession(showId, opened));
      await new Promise<void>((resolve) => signal.addEventListener("abort", () => resolve()));
      await session!.flush().catch(() => undefined);
      session!.close();
    };
    const name = `bold-comet-show-${showId}`;
    const begin = async () => {
      const hosted = await navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
        if (!lock) return false;
        await host();
        return true;
      });
      if (hosted || signal.aborted) return;
      void joinHost(showId).then((joined) => {
        guest = joined;
        if (session || signal.aborted) joined.session.close();
        else show(joined.session);
      });
      await navigator.locks.request(name, { signal }, host);
    };
    begin().catch(failed);
    return () => {
      stop.abort();
      guest?.session.close();
    };
  }, [showId]);

  if (status.kind !== "open") return <NotOpen status={status} />;
  return (
    <SessionContext.Provider value={status.session}>
      <Frame key={status.session.id}>{children}</Frame>
    </SessionContext.Provider>
  );
}

function NotOpen({ status }: { status: Exclude<Status, { kind: "open" }> }) {
  return (
    <Center h="100dvh">
      <Stack align="center" gap="sm">
        {status.kind === "opening" && <Loader color="mint" aria-label="Opening the show" />}
        {status.kind === "failed" && <Text role="alert">{status.why}</Text>}
        {status.kind !== "opening" && <Button component={Link} href="/" variant="default">All shows</Button>}
      </Stack>
    </Center>
  );
}

function Frame({ children }: { children: ReactNode }) {
  useKeys();
  useStillPage();
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
