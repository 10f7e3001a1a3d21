/** Day on paper, or booth for dark control rooms; kept in this browser. */
export type Theme = "day" | "booth";

export function storedTheme(): Theme {
  return localStorage.getItem("ringside-theme") === "booth" ? "booth" : "day";
}

export function applyTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  localStorage.setItem("ringside-theme", theme);
}
