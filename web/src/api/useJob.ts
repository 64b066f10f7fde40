import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

const ENDED = ["done", "cancelled", "dropped"];

/** Wait for work that takes longer than one waits, and then ask again for what it was for; how far it is, 0 to 1. */
export function useJob(job: number | null, queryKey: unknown[]): number | null {
  const client = useQueryClient();
  const [progress, setProgress] = useState(0);
  useEffect(() => {
    if (job === null) return;
    const events = new EventSource(`/api/jobs/${job}/events`);
    events.onmessage = (event) => {
      const { state, progress } = JSON.parse(event.data) as { state: string; progress: number };
      setProgress(progress);
      if (!ENDED.includes(state)) return;
      events.close();
      client.invalidateQueries({ queryKey });
    };
    return () => events.close();
  }, [job, client, queryKey]);
  return job === null ? null : progress;
}
