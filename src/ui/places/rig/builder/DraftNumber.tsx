"use client";

import { NumberInput, type NumberInputProps } from "@mantine/core";
import { useState } from "react";

interface Props extends Omit<NumberInputProps, "value" | "onChange"> {
  value: number;
  /** Whole and not below 0; on unless said. */
  isWhole?: boolean;
  onSet(value: number): void;
}

/** A number of a draft. Emptied it keeps what it was, which is back when the field is left. */
export function DraftNumber({ value, onSet, isWhole = true, ...rest }: Props) {
  const [isEmpty, setEmpty] = useState(false);
  return (
    <NumberInput
      size="xs"
      allowDecimal={!isWhole}
      allowNegative={!isWhole}
      {...rest}
      value={isEmpty ? "" : value}
      onChange={(typed) => {
        const number = typed === "" ? NaN : Number(typed);
        setEmpty(Number.isNaN(number));
        if (!Number.isNaN(number)) onSet(number);
      }}
      onBlur={() => setEmpty(false)}
    />
  );
}
