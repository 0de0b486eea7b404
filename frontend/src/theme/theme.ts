import { create } from "zustand";

export type Theme = "dark" | "light";
const KEPT = "zarabanda.theme";

/** Which theme this browser has chosen; dark, until it does. */
export const useTheme = create<{ theme: Theme }>(() => ({
  theme: localStorage.getItem(KEPT) === "light" ? "light" : "dark",
}));

const paint = () => (document.documentElement.dataset.theme = useTheme.getState().theme);
useTheme.subscribe(paint);
paint();

/** Choose a theme, for now and for the next time. */
export function chooseTheme(theme: Theme) {
  localStorage.setItem(KEPT, theme);
  useTheme.setState({ theme });
}
