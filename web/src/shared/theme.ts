/** Light, dark, or as the machine has it; kept in this browser. The bench is always dark. */
export type Theme = "auto" | "light" | "dark";
const KEY = "umber-pebble-theme";
const dark = window.matchMedia("(prefers-color-scheme: dark)");

export const theme = (): Theme => (localStorage.getItem(KEY) as Theme | null) ?? "auto";

export function applyTheme(chosen: Theme = theme()): void {
  localStorage.setItem(KEY, chosen);
  const isDark = chosen === "dark" || (chosen === "auto" && dark.matches);
  document.documentElement.dataset.theme = isDark ? "dark" : "light";
}

dark.addEventListener("change", () => applyTheme());
