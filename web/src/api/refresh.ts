import type { QueryClient } from "@tanstack/react-query";

/** Ask anew for what something else has changed. What is on its way already was asked before the change: it is given up. */
export async function refresh(client: QueryClient, queryKey: unknown[]) {
  await client.cancelQueries({ queryKey });
  await client.invalidateQueries({ queryKey });
}
