"use client";

import { REMEMBERED } from "@/ui/base/preferences/registry";
import { useRemembered } from "@/ui/base/preferences/remembered";

/** Whether sheets and cues show palettes by their names instead of the values they give. */
export const usePaletteNames = (): [boolean, (next: boolean) => void] => useRemembered(REMEMBERED.paletteNames);
