// Light, dark or the system's choice, as a class on the document.
type Theme = "light" | "dark" | "system"
let chosen: Theme = "system"

const system = () => window.matchMedia("(prefers-color-scheme: dark)")

function paint() {
  const dark = chosen === "dark" || (chosen === "system" && system().matches)
  const root = document.documentElement
  root.classList.toggle("dark", dark)
  root.classList.toggle("light", !dark)
  root.style.colorScheme = dark ? "dark" : "light"
}

export function applyTheme(theme: Theme) {
  chosen = theme
  paint()
}

/** Follow the system when it turns dark in the evening, without a reload. */
export function followSystem() {
  system().addEventListener("change", paint)
}
