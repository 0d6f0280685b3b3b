import { QueryClient } from "@tanstack/react-query";
import { AGAIN_MS } from "../api/answers";
import { Unreachable } from "../api/client";

/**
 * What asks the server. Without a network it asks all the same, so that a place says what is wrong
 * instead of waiting without end, and goes on asking until there is an answer.
 */
export function queryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        networkMode: "always",
        retry: 1,
        refetchOnWindowFocus: false,
        refetchInterval: ({ state }) => (state.error instanceof Unreachable ? AGAIN_MS : false),
      },
      mutations: { networkMode: "always" },
    },
  });
}
