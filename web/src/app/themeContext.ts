import { createContext } from "react";
import type { ThemeName } from "./theme";

export const ThemeContext = createContext<{ theme: ThemeName; toggle: () => void }>({
  theme: "light",
  toggle: () => undefined,
});
