import { useEffect, useState } from "react";

/** The screen stays awake while the bench is open; whether it does. */
export function useAwake(): boolean {
  const [awake, setAwake] = useState(false);
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = async () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      try {
        lock = await navigator.wakeLock.request("screen");
        if (gone) lock.release();
        else setAwake(true);
        lock.addEventListener("release", () => setAwake(false));
      } catch {
        setAwake(false); // the battery is low, or the browser does not allow it: said under More
      }
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", ask);
      lock?.release();
    };
  }, []);
  return awake;
}

/** Keep the application on this device, so that the bench opens without the server. */
export function useInstalled() {
  useEffect(() => {
    if (import.meta.env.PROD && "serviceWorker" in navigator) {
      navigator.serviceWorker.register("/sw.js").catch(() => undefined); // without it the bench needs the server to open
    }
    navigator.storage?.persist?.();
  }, []);
}
