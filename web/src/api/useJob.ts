import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

const ENDED = ["done", "cancelled", "dropped"];

/** Wait for work that takes longer than one waits, and then ask again for what it was for. */
export function useJob(job: number | null, queryKey: unknown[]) {
  const client = useQueryClient();
  useEffect(() => {
    if (job === null) return;
    const events = new EventSource(`/api/jobs/${job}/events`);
    events.onmessage = (event) => {
      const { state } = JSON.parse(event.data) as { state: string };
      if (!ENDED.includes(state)) return;
      events.close();
      client.invalidateQueries({ queryKey });
    };
    return () => events.close();
  }, [job, client, queryKey]);
}
