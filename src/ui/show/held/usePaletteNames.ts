"use client";

import { z } from "@/core/units/zod";
import { usePrefs } from "@/ui/base/preferences/usePrefs";

/** Whether sheets and cues show palettes by their names instead of the values they give. */
export const usePaletteNames = (): [boolean, (next: boolean) => void] =>
  usePrefs("bold-comet-palette-names", z.boolean(), false);
