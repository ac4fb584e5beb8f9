"use client";

import {
  Button,
  createTheme,
  MantineProvider,
  Menu,
  Modal,
  NumberInput,
  Table,
  Tooltip,
  type MantineColorsTuple,
} from "@mantine/core";
import type { ReactNode } from "react";
import { Hints } from "./base/hints/Hints";
import { KeptApp } from "./show/addresses/keptApp";

const ink: MantineColorsTuple = [
  "#e9eef7",
  "#c9d2e3",
  "#a9b5cb",
  "#8f9db6",
  "#5c6a84",
  "#2a3549",
  "#1c2434",
  "#141a26",
  "#0d1119",
  "#080b11",
];
const mint: MantineColorsTuple = [
  "#e6fbf4",
  "#cff6e8",
  "#b5f0db",
  "#9aeccf",
  "#7ee8c4",
  "#55cfa7",
  "#34b58c",
  "#1a8f6c",
  "#0b6e52",
  "#05503b",
];

const theme = createTheme({
  fontFamily: "var(--sans)",
  fontFamilyMonospace: "var(--mono)",
  headings: { fontFamily: "var(--sans)", fontWeight: "600" },
  primaryColor: "mint",
  primaryShade: { light: 8, dark: 4 },
  autoContrast: true,
  colors: { dark: ink, mint },
  defaultRadius: "md",
  cursorType: "pointer",
  components: {
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { "aria-label": "Close" } } }),
    // A menu never leaves its window: what has no room in it is scrolled to.
    Menu: Menu.extend({
      defaultProps: { middlewares: { flip: { padding: 8 }, shift: { padding: 8 }, size: { padding: 8 } } },
      styles: { dropdown: { overflowY: "auto" } },
    }),
    // Nothing shows more decimals than people read.
    NumberInput: NumberInput.extend({ defaultProps: { decimalScale: 4 } }),
    Tooltip: Tooltip.extend({ defaultProps: { events: { hover: true, focus: true, touch: false } } }),
    Table: Table.extend({ defaultProps: { borderColor: "var(--line)" } }),
    Button: Button.extend({
      vars: (_, { variant = "filled" }) => ({
        root: variant === "filled" ? { "--button-color": "var(--on-selection)" } : {},
      }),
    }),
  },
});

export function Providers({ children }: { children: ReactNode }) {
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <KeptApp />
      <Hints />
      {children}
    </MantineProvider>
  );
}
