import { useCallback, useEffect, useRef, useState } from "react";
import { answered, api } from "../api/call";
import type { Instrument } from "../api/types";

/** One event of the stream (docs/formats.md, Instruments). */
export type InstrumentReading = {
  value: number | null;
  text: string;
  unit: "deg" | "mm";
  sent: boolean;
  battery: number;
  trouble: string;
};
export type Heard = { text: string; by: "gauge" | "caliper"; count: number };
export type Instruments = {
  all: Instrument[];
  notice: string;
  chosen: Instrument | null;
  now: InstrumentReading | null;
  /** The last reading that was meant: its key was pressed, or it was taken here. */
  heard: Heard | null;
  find: () => void;
  connect: (one: Instrument | null) => void;
  take: () => void;
};

/** A gauge or caliper, followed while it is connected; what it reads goes where the cursor is when its key is pressed. */
export function useInstruments(): Instruments {
  const [all, setAll] = useState<Instrument[]>([]);
  const [notice, setNotice] = useState("");
  const [chosen, setChosen] = useState<Instrument | null>(null);
  const [now, setNow] = useState<InstrumentReading | null>(null);
  const [heard, setHeard] = useState<Heard | null>(null);
  const count = useRef(0);
  const by = chosen?.unit === "mm" ? "caliper" : "gauge";

  const meant = useCallback((reading: InstrumentReading, from: Heard["by"]) => {
    count.current += 1;
    setHeard({ text: reading.text, by: from, count: count.current });
  }, []);
  const find = useCallback(async () => {
    const answer = await answered(api.GET("/api/instruments"));
    setAll(answer.ok ? answer.data.instruments : []);
    setNotice(answer.ok ? answer.data.notice : "No connection: instruments are read through the server.");
  }, []);
  const connect = useCallback((one: Instrument | null) => {
    setNow(null);
    setChosen(one);
  }, []);

  useEffect(() => {
    if (!chosen) return;
    const source = new EventSource(`/api/instruments/${chosen.id}/readings`);
    source.onmessage = (event) => {
      const reading = JSON.parse(event.data) as InstrumentReading;
      setNow(reading);
      if (reading.sent && reading.value !== null) meant(reading, chosen.unit === "mm" ? "caliper" : "gauge");
    };
    source.onerror = () =>
      setNow((before: InstrumentReading | null) =>
        before
          ? { ...before, value: null, trouble: "The connection to it is lost. Typing still works." }
          : before,
      );
    return () => source.close();
  }, [chosen, meant]);

  const take = useCallback(() => {
    if (now && now.value !== null) meant(now, by);
  }, [now, by, meant]);
  return { all, notice, chosen, now, heard, find, connect, take };
}
