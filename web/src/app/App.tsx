import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { isAnythingFragile } from "../api/kept";
import { BenchPlace } from "../features/bench/BenchPlace";
import { BoardPlace } from "../features/board/BoardPlace";
import { KitPlace } from "../features/kit/KitPlace";
import { RoutePlace } from "../features/route/RoutePlace";
import { FirstPlace } from "../features/trips/FirstPlace";
import { SumsPlace } from "../features/sums/SumsPlace";
import { TripsPlace } from "../features/trips/TripsPlace";
import { VariantsPlace } from "../features/variants/VariantsPlace";
import { CommandKeeper } from "./CommandKeeper";
import { Shell } from "./Shell";
import { type ThemeName, themeOf } from "./theme";
import { ThemeContext } from "./themeContext";

const THEME_KEY = "tumbrel.theme";

const router = createBrowserRouter([
  { path: "/", element: <FirstPlace /> },
  { path: "/trips", element: <TripsPlace /> },
  { path: "/sums", element: <SumsPlace /> },
  {
    path: "/trip/:tripId",
    element: <Shell />,
    children: [
      { index: true, element: <Navigate to="board" replace /> },
      { path: "board", element: <BoardPlace /> },
      { path: "route", element: <RoutePlace /> },
      { path: "kit", element: <KitPlace /> },
      { path: "bench", element: <BenchPlace /> },
      { path: "variants", element: <VariantsPlace /> },
    ],
  },
  { path: "*", element: <Navigate to="/" replace /> },
]);

function firstTheme(): ThemeName {
  const kept = localStorage.getItem(THEME_KEY);
  if (kept === "light" || kept === "dim") return kept;
  return globalThis.matchMedia("(prefers-color-scheme: dark)").matches ? "dim" : "light";
}

export function App() {
  const [theme, setTheme] = useState<ThemeName>(firstTheme);
  const [cache] = useState(
    () =>
      new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } }),
  );
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (isAnythingFragile(cache)) event.preventDefault();
    };
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [cache]);
  useEffect(() => {
    document.documentElement.dataset["theme"] = theme;
    localStorage.setItem(THEME_KEY, theme);
  }, [theme]);
  const value = useMemo(
    () => ({
      theme,
      toggle: () => setTheme((old) => (old === "light" ? "dim" : "light")),
    }),
    [theme],
  );
  return (
    <ThemeContext value={value}>
      <ThemeProvider theme={themeOf(theme)}>
        <QueryClientProvider client={cache}>
          <CommandKeeper>
            <RouterProvider router={router} />
          </CommandKeeper>
        </QueryClientProvider>
      </ThemeProvider>
    </ThemeContext>
  );
}
