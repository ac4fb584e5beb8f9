import { useMediaQuery } from "@mantine/hooks";

/** Whether fingers work here: what is pressed is then 40 px high (`touch.css`). */
export const useCoarse = (): boolean =>
  useMediaQuery("(any-pointer: coarse)", false, { getInitialValueInEffect: false }) ?? false;
