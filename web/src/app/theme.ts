import { createTheme, type Theme } from "@mui/material/styles";

export type ThemeName = "light" | "dim";

const INKS = {
  light: {
    paper: "#F6F3EA",
    ink: "#16211F",
    ink2: "#4C5753",
    rule: "#7C8073",
    act: "#0B5A8A",
    gap: "#9C1430",
  },
  dim: {
    paper: "#15110D",
    ink: "#E2C79C",
    ink2: "#B0946C",
    rule: "#80694D",
    act: "#F0C060",
    gap: "#F08A7A",
  },
} as const;

/** The controls' theme: flat, square, ruled, in the board's own inks. */
export function themeOf(name: ThemeName): Theme {
  const inks = INKS[name];
  return createTheme({
    palette: {
      mode: name === "light" ? "light" : "dark",
      primary: { main: inks.ink },
      error: { main: inks.gap },
      text: { primary: inks.ink, secondary: inks.ink2 },
      background: { default: inks.paper, paper: inks.paper },
      divider: inks.rule,
    },
    shape: { borderRadius: 0 },
    shadows: Array(25).fill("none") as Theme["shadows"],
    typography: {
      fontFamily: '"Archivo Variable", sans-serif',
      fontSize: 14,
      button: { textTransform: "none", fontWeight: 640 },
    },
    components: {
      MuiButtonBase: { defaultProps: { disableRipple: true } },
      MuiButton: {
        defaultProps: { variant: "outlined", disableElevation: true },
        styleOverrides: {
          root: {
            borderWidth: 1.2,
            borderColor: inks.ink,
            fontStretch: "88%",
            lineHeight: 1.5,
            "&:focus-visible": { outline: `2px solid ${inks.act}`, outlineOffset: 2 },
          },
        },
      },
      MuiPaper: {
        styleOverrides: { root: { backgroundImage: "none", border: `1.2px solid ${inks.ink}` } },
      },
    },
  });
}
