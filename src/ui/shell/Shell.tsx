"use client";

import { Button, Center, Loader, Stack, Text } from "@mantine/core";
import Link from "next/link";
import { useRouter, useSearchParams } from "next/navigation";
import { useDeferredValue, useEffect, useMemo, useSyncExternalStore, type ReactNode } from "react";
import { leaveShow, runShow, type RunningShow, type Status } from "@/session/running";
import { DEMO_ID } from "@/core/show/showId";
import type { Session } from "@/session/state";
import { Deck } from "./deck/Deck";
import { Fence } from "@/ui/base/parts/Fence";
import { capital } from "@/ui/base/typed/capital";
import { useStillPage } from "@/ui/base/gestures/scrub";
import { SessionContext, useSession } from "@/ui/show/useSession";
import { PaletteInside } from "@/ui/features/palettes/PaletteInside";
import { FirstSteps } from "@/ui/features/start/FirstSteps";
import { WorthTrying } from "@/ui/features/start/WorthTrying";
import { WhyPanel } from "@/ui/features/why/WhyPanel";
import { BlindStage } from "@/ui/stage/blind/BlindStage";
import { HouseDim } from "./HouseDim";
import { Notices } from "./Notices";
import { NEW_VERSION, useNewVersion } from "@/ui/show/addresses/keptApp";
import { readVersion, usePlace, useShowId } from "@/ui/show/addresses/places";
import { Rail } from "./Rail";
import { Rescue } from "./Rescue";
import { TopBar } from "./TopBar";
import { TruthBand } from "./Truths";
import { LearnBand } from "@/ui/features/surface/LearnBand";
import { useSurface } from "@/ui/features/surface/useSurface";
import { useAwake } from "@/ui/places/run/useAwake";
import { useViews } from "@/ui/features/views/useViews";
import { useFocusManners } from "./useFocusManners";
import { useKeys } from "./useKeys";
import classes from "./Shell.module.css";

const OPENING: Status = { kind: "opening" };
const onServer = (): Status => OPENING;

/** The show this window runs. It lives outside of React: only leaving its pages ends it. */
function useRunning(id: string): Status {
  const text = useSearchParams().get("version");
  const running = useMemo((): RunningShow | undefined => {
    if (typeof window === "undefined") return undefined;
    const version = readVersion(text);
    return runShow(
      id,
      version && {
        version,
        says:
          "step" in version
            ? `the show as it was after step ${version.step}`
            : `the show as it was on ${new Date(version.moment).toLocaleString()}`,
      },
    );
  }, [id, text]);
  useEffect(
    () => () => {
      // A fault that takes the page down is no leaving: the address is still the show's.
      if (!location.pathname.startsWith(`/show/${id}/`)) leaveShow(id);
    },
    [id],
  );
  return useSyncExternalStore(running?.subscribe ?? (() => () => undefined), running?.status ?? onServer, onServer);
}

/** While something is not written yet, leaving asks. */
function useAskBeforeLeaving(session: Session | undefined): void {
  useEffect(() => {
    if (!session?.hosts) return;
    const ask = (event: BeforeUnloadEvent) => {
      if (session.store.getState().saved === "saved") return;
      void session.flush();
      event.preventDefault();
    };
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [session]);
}

/** Puts the frame of the product around the places of a show. */
export function Shell({ children }: { children: ReactNode }) {
  const showId = useShowId();
  const now = useRunning(showId);
  const drawn = useDeferredValue(now);
  // A large show that opens is drawn in pieces. At a hand-over nothing waits: the session that was there is closed.
  const status = now.kind === "open" && drawn.kind === "opening" ? drawn : now;
  const session = status.kind === "open" ? status.session : undefined;
  useAskBeforeLeaving(session);
  if (!session) return <NotOpen showId={showId} status={status} />;
  return (
    <SessionContext.Provider value={session}>
      <Frame key={session.id}>{children}</Frame>
    </SessionContext.Provider>
  );
}

function NotOpen({ showId, status }: { showId: string; status: Status }) {
  const router = useRouter();
  return (
    <Center mih="100dvh" p="md">
      <Stack align="center" gap="sm">
        {status.kind === "opening" && <Loader color="mint" role="status" aria-label="Opening the show" />}
        {status.kind === "failed" && (
          <>
            <Text role="alert" maw={640}>
              {capital(status.why)}
            </Text>
            {status.rescue && <Rescue showId={showId} onKept={(id) => router.push(`/show/${id}/build`)} />}
            <Button component={Link} href="/" variant="default">
              All shows
            </Button>
          </>
        )}
      </Stack>
    </Center>
  );
}

function Frame({ children }: { children: ReactNode }) {
  const place = usePlace();
  const session = useSession();
  const newVersion = useNewVersion();
  useEffect(() => {
    if (newVersion) session.tell(NEW_VERSION);
  }, [session, newVersion]);
  useKeys();
  useFocusManners();
  useViews();
  useSurface();
  useAwake();
  useStillPage();
  return (
    <div className={classes.frame}>
      <LearnBand />
      <Fence what="The top bar" area="top">
        <TopBar />
      </Fence>
      <TruthBand />
      <Fence what="The rail" area="rail">
        <Rail />
      </Fence>
      <Fence what="The first steps" area="start">
        {session.id === DEMO_ID ? <WorthTrying /> : <FirstSteps />}
      </Fence>
      <main className={classes.place}>
        <Fence what="This place" on={place}>
          {children}
        </Fence>
      </main>
      <Fence what="The deck" area="deck" on={place}>
        <Deck />
      </Fence>
      <Notices />
      <Fence what="Why">
        <WhyPanel />
      </Fence>
      <Fence what="The palette">
        <PaletteInside />
      </Fence>
      <BlindStage />
      <HouseDim.Veil />
    </div>
  );
}
