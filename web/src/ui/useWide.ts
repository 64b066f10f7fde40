import { useSyncExternalStore } from "react";

const wide = window.matchMedia("(min-width: 64rem)");

const subscribe = (told: () => void) => {
  wide.addEventListener("change", told);
  return () => wide.removeEventListener("change", told);
};

/** Whether the panel stands beside the sheet (as the style sheet's `lg` has it) rather than below. */
export const useWide = () => useSyncExternalStore(subscribe, () => wide.matches);
