import { useContext } from "react";
import { ThemeContext } from "./themeContext";

/** Light for the sun, dim for a head torch. */
export function ThemeToggle() {
  const { theme, toggle } = useContext(ThemeContext);
  const light = theme === "light";
  return (
    <button
      type="button"
      className="plain tool"
      onClick={toggle}
      aria-label={light ? "Dim theme, for a head torch" : "Light theme, for the sun"}
    >
      {light ? "Dim" : "Light"}
    </button>
  );
}
