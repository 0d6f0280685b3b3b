import { ThemeProvider } from "@mui/material/styles";
import { QueryClientProvider } from "@tanstack/react-query";
import { type ComponentType, useEffect, useMemo, useState } from "react";
import { createBrowserRouter, Navigate, RouterProvider } from "react-router";
import { isAnythingFragile } from "../api/kept";
import * as ofBoard from "../features/board/loadLater";
import { FirstPlace } from "../features/trips/FirstPlace";
import { loadDialog } from "../ui/loadDialog";
import { CommandKeeper } from "./CommandKeeper";
import { keepFocus } from "./focusStays";
import { NotLoaded } from "./NotLoaded";
import { queryClient } from "./queryClient";
import { Shell } from "./Shell";
import { type ThemeName, themeOf } from "./theme";
import { ThemeContext } from "./themeContext";

const REST_AFTER_MS = 1500;
const THEME_KEY = "tumbrel.theme";

/** A place that is loaded when it is first opened. */
function opened<Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) {
  return async () => ({ Component: (await load())[name] });
}

const board = opened(() => import("../features/board/BoardPlace"), "BoardPlace");
const kit = opened(() => import("../features/kit/KitPlace"), "KitPlace");
const bench = opened(() => import("../features/bench/BenchPlace"), "BenchPlace");
const route = opened(() => import("../features/route/RoutePlace"), "RoutePlace");
const variants = opened(() => import("../features/variants/VariantsPlace"), "VariantsPlace");
const card = opened(() => import("../features/card/CardPlace"), "CardPlace");
const trips = opened(() => import("../features/trips/TripsPlace"), "TripsPlace");
const sums = opened(() => import("../features/sums/SumsPlace"), "SumsPlace");

const router = createBrowserRouter([
  {
    errorElement: <NotLoaded />,
    hydrateFallbackElement: <p className="page">Opening…</p>,
    children: [
      { path: "/", element: <FirstPlace /> },
      { path: "/trips", lazy: trips },
      { path: "/sums", lazy: sums },
      {
        path: "/trip/:tripId",
        element: <Shell />,
        children: [
          { index: true, element: <Navigate to="board" replace /> },
          { path: "board", lazy: board },
          { path: "route", lazy: route },
          { path: "kit", lazy: kit },
          { path: "bench", lazy: bench },
          { path: "variants", lazy: variants },
          { path: "card", lazy: card },
        ],
      },
      { path: "*", element: <Navigate to="/" replace /> },
    ],
  },
]);

/** The places not opened yet, loaded while nothing else is to be done: offline they are there. */
function loadTheRest() {
  const places = [board, route, kit, bench, variants, card, trips, sums];
  const parts = [loadDialog, ...Object.values(ofBoard)];
  void Promise.allSettled([...places, ...parts].map((load) => load()));
}

function firstTheme(): ThemeName {
  const kept = localStorage.getItem(THEME_KEY);
  if (kept === "light" || kept === "dim") return kept;
  return globalThis.matchMedia("(prefers-color-scheme: dark)").matches ? "dim" : "light";
}

export function App() {
  const [theme, setTheme] = useState<ThemeName>(firstTheme);
  const [cache] = useState(queryClient);
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
  useEffect(keepFocus, []);
  useEffect(() => {
    const later = setTimeout(loadTheRest, REST_AFTER_MS);
    return () => clearTimeout(later);
  }, []);
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
