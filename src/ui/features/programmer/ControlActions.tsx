"use client";

import { Button, Group } from "@mantine/core";
import { useMemo } from "react";
import { ACTIONS } from "@/core/fixture/type";
import { splitItem } from "@/core/show/ids";
import { modelOf } from "@/core/show/model";
import { useSession, useShow } from "@/ui/show/useSession";

/** The control actions of the selected types: lamp on and off, reset. Nothing where none has any. */
export function ControlActions() {
  const session = useSession();
  const show = useShow((s) => s.world.show);
  const selection = useShow((s) => s.world.hands.selection);
  const having = useMemo(() => {
    const fixtures = [...new Set(selection.map((i) => splitItem(i).fixture))].flatMap((id) => show.fixtures[id] ?? []);
    const able = new Map(ACTIONS.map((does) => [does, new Set<string>()]));
    for (const fixture of fixtures)
      for (const { does } of modelOf(show, fixture).mode.actions ?? []) able.get(does)!.add(fixture.id);
    return [...able].flatMap(([does, ids]) => (ids.size > 0 ? [{ does, ids: [...ids] }] : []));
  }, [show.fixtures, show.types, selection]); // oxlint-disable-line react-hooks/exhaustive-deps
  if (having.length === 0) return null;
  return (
    <Group gap={6} px={10} pb={8} aria-label="Control actions" role="group">
      {having.map(({ does, ids }) => (
        <Button
          key={does}
          size="compact-sm"
          variant="default"
          title={`${does} for ${ids.length}: the type's own control action, for the time it needs`}
          onClick={() => void session.event({ kind: "control", fixtures: ids, does })}
        >
          {does[0]!.toUpperCase() + does.slice(1)}
        </Button>
      ))}
    </Group>
  );
}
