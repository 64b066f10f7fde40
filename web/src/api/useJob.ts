import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

const ENDED = ["done", "cancelled", "dropped"];

/** Wait for work that takes longer than one waits, and then ask again for what it was for; how far it is, 0 to 1. With `early` what
 * it has so far is asked for too, whenever it has come further. */
export function useJob(job: number | null, queryKey: unknown[], early = false): number | null {
  const client = useQueryClient();
  const [progress, setProgress] = useState(0);
  const asked = useRef(-1);
  useEffect(() => {
    asked.current = -1;
    setProgress(0);
    if (job === null) return;
    const events = new EventSource(`/api/jobs/${job}/events`);
    events.onmessage = (event) => {
      const { state, progress } = JSON.parse(event.data) as { state: string; progress: number };
      setProgress(progress);
      const ended = ENDED.includes(state);
      if (ended) events.close();
      if (ended || (early && progress > 0 && progress > asked.current)) {
        asked.current = progress;
        client.invalidateQueries({ queryKey });
      }
    };
    return () => events.close();
  }, [job, client, queryKey, early]);
  return job === null ? null : progress;
}
