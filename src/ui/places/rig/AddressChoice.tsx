"use client";

import { Group, SegmentedControl, TextInput } from "@mantine/core";
import { parseAddress } from "@/core/show/address";

interface Props {
  choices: { value: string; label: string }[];
  where: string;
  onWhere(where: string): void;
  /** The first address, for "at". */
  start: string;
  onStart(start: string): void;
}

/** Where fixtures are to be addressed; "at" asks for the first address. */
export function AddressChoice({ choices, where, onWhere, start, onStart }: Props) {
  return (
    <Group gap="sm">
      <SegmentedControl size="xs" aria-label="Addresses" value={where} onChange={onWhere} data={choices} />
      {where === "at" && (
        <TextInput
          size="xs"
          w={90}
          aria-label="First address"
          value={start}
          error={parseAddress(start) === undefined}
          onChange={(e) => onStart(e.currentTarget.value)}
        />
      )}
    </Group>
  );
}
