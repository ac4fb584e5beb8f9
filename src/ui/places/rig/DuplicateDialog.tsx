"use client";

import { Button, Group, Modal, NumberInput, Stack, Text } from "@mantine/core";
import { useState } from "react";
import { nextNumber } from "@/core/patch/plan";
import { copyProgramming, duplicateFixtures } from "@/core/rig/duplicateIntent";
import { parseAddress } from "@/core/show/address";
import { itemText } from "@/core/show/model";
import { fixtureNumbered } from "@/core/show/world";
import { useSession, useShow } from "@/ui/show/useSession";
import { AddressChoice } from "./AddressChoice";
import { plural } from "@/core/units/plural";

/** Fixtures made again with their programming, or programmed as another one is. */
export function DuplicateDialog({ fixtures, onClose }: { fixtures: readonly string[] | null; onClose(): void }) {
  return (
    <Modal opened={fixtures !== null} onClose={onClose} title="Duplicate or copy programming" size={560} centered>
      {fixtures && <Duplicate fixtures={fixtures} onClose={onClose} />}
    </Modal>
  );
}

function Duplicate({ fixtures, onClose }: { fixtures: readonly string[]; onClose(): void }) {
  const session = useSession();
  const { show } = useShow((s) => s.world);
  const [from, setFrom] = useState<number | string>(nextNumber(show));
  const [where, setWhere] = useState("unpatched");
  const [start, setStart] = useState("1:1");
  const [as, setAs] = useState<number | string>("");
  const first = Math.floor(Number(from)) || 0;
  const taken = fixtures.map((_, k) => first + k).find((n) => fixtureNumbered(show, n));
  const source = as === "" ? undefined : fixtureNumbered(show, Number(as));
  const names = fixtures.map((id) => itemText(show, id)).join(", ");
  const duplicate = () => {
    const at = where === "at" ? (parseAddress(start) ?? "unpatched") : (where as "auto" | "unpatched");
    if (!session.act([duplicateFixtures.of({ fixtures: [...fixtures], from: first, at })])) onClose();
  };
  const alike = () => {
    if (source && !session.act([copyProgramming.of({ from: source.id, to: [...fixtures] })])) onClose();
  };
  return (
    <Stack gap="md">
      <Text size="sm">
        {plural(fixtures.length, "fixture")}: {names.length > 90 ? `${names.slice(0, 90)} ...` : names}
      </Text>
      <Stack gap="xs">
        <NumberInput
          label="Copies numbered from"
          min={1}
          max={999_999}
          allowDecimal={false}
          value={from}
          onChange={setFrom}
          error={first < 1 ? "A number from 1" : taken !== undefined ? `${taken} is taken` : undefined}
          data-autofocus
        />
        <AddressChoice
          choices={[
            { value: "unpatched", label: "unpatched" },
            { value: "auto", label: "first free run" },
            { value: "at", label: "from an address" },
          ]}
          where={where}
          onWhere={setWhere}
          start={start}
          onStart={setStart}
        />
        <Text size="sm" c="dimmed">
          With their places in groups and effects, their exceptions in palettes and all they have in cues. The copies
          sit half a metre beside the originals.
        </Text>
        <Button onClick={duplicate} disabled={first < 1 || taken !== undefined}>
          Duplicate {plural(fixtures.length, "fixture")}
        </Button>
      </Stack>
      <Group align="end" gap="sm">
        <NumberInput
          label="Or copy programming from fixture"
          min={1}
          allowDecimal={false}
          value={as}
          onChange={setAs}
          error={as !== "" && !source ? `There is no fixture ${as}` : undefined}
        />
        <Button variant="default" onClick={alike} disabled={!source}>
          Copy programming
        </Button>
      </Group>
    </Stack>
  );
}
