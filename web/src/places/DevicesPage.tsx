import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { type Answer, answered, api, fetched } from "../api/call";
import type { Code, Share } from "../api/types";
import { PageHead } from "../ui/PageHead";

const KEY = ["share"];

/** Phones: whether they are let in, a code for the next one, who is in. */
export function DevicesPage() {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: KEY,
    queryFn: () => fetched(api.GET("/api/share")),
    refetchInterval: 4000,
  });
  const [code, setCode] = useState<Code | null>(null);
  const [trouble, setTrouble] = useState("");
  const share = query.data;
  const known = share?.devices.length ?? 0;
  // When the phone has come in its code is used up.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another number of devices takes the code away
  useEffect(() => setCode(null), [known]);
  const take = (answer: Answer<Share>) => {
    if (answer.ok) client.setQueryData(KEY, answer.data);
    setTrouble(answer.ok ? "" : answer.problem.detail);
  };
  const turn = async (on: boolean) => {
    setCode(null);
    take(await answered(api.POST("/api/share", { body: { on } })));
  };
  const show = async () => {
    const answer = await answered(api.POST("/api/share/code", { body: {} }));
    if (answer.ok) setCode(answer.data);
    setTrouble(answer.ok ? "" : answer.problem.detail);
  };
  const remove = async (device_id: string) =>
    take(
      await answered(api.DELETE("/api/devices/{device_id}", { params: { path: { device_id } }, body: {} })),
    );
  return (
    <div className="min-h-full">
      <PageHead />
      <main className="max-w-3xl px-6 py-5 text-[17px]">
        <h1 className="text-[24px]">Phones at the bench</h1>
        <p className="mt-1 text-ink-2">
          A phone or tablet in the same network can show the bench beside the saw. Nothing leaves your
          network, and only devices that you let in here see anything.
        </p>
        {query.isError && <p role="alert">{query.error.message}</p>}
        {(trouble || share?.trouble) && (
          <p role="alert" className="my-2 font-medium text-warn">
            {trouble || share?.trouble}
          </p>
        )}
        {share && (
          <button
            type="button"
            className="plain-button my-3"
            aria-pressed={share.on}
            onClick={() => turn(!share.on)}
          >
            {share.on ? "Phones are let in: stop that" : "Let phones in"}
          </button>
        )}
        {share?.on && (
          <>
            <h2 className="mt-4 text-[20px]">1. Trust this machine, once on each phone</h2>
            <p>
              Open <strong className="figure">{share.url}/pair</strong> on the phone. It warns that it does
              not know who answers: that is so the first time. Go on, take the certificate offered there, and
              install it in the phone's settings as one to trust. Then it warns no more, and the bench works
              without a connection.
            </p>
            <details className="my-1">
              <summary className="min-h-10 py-2">Is it the right one?</summary>
              <p className="figure break-all text-[15px] whitespace-normal">SHA-256 {share.fingerprint}</p>
            </details>
            <h2 className="mt-4 text-[20px]">2. Let it in</h2>
            {code ? (
              <CodeShown key={code.code} code={code} onGone={() => setCode(null)} />
            ) : (
              <button type="button" className="go-button my-2" onClick={show}>
                Show a code
              </button>
            )}
          </>
        )}
        <h2 className="mt-5 text-[20px]">Who is let in</h2>
        {known === 0 && <p className="text-ink-2">No device yet.</p>}
        <ul>
          {share?.devices.map((device) => (
            <li key={device.id} className="flex items-center gap-4 border-b border-line py-2">
              <span className="flex-1">
                <strong>{device.name}</strong>{" "}
                <span className="text-ink-2">
                  since {new Date(`${device.paired_at}Z`).toLocaleDateString()}
                </span>
              </span>
              <button type="button" className="plain-button" onClick={() => remove(device.id)}>
                Remove<span className="sr-only"> {device.name}</span>
              </button>
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
}

/** The code, its picture, and how long it is good. */
function CodeShown({ code, onGone }: { code: Code; onGone: () => void }) {
  const [left, setLeft] = useState(code.seconds);
  useEffect(() => {
    const until = Date.now() + code.seconds * 1000;
    const timer = setInterval(() => {
      const seconds = Math.ceil((until - Date.now()) / 1000);
      if (seconds <= 0) onGone();
      setLeft(seconds);
    }, 500);
    return () => clearInterval(timer);
  }, [code, onGone]);
  const size = code.qr.length + 4;
  const dark = code.qr.flatMap((row, y) =>
    [...row].map((cell, x) => (cell === "1" ? `M${x + 2} ${y + 2}h1v1h-1z` : "")),
  );
  return (
    <div className="my-2 flex flex-wrap items-center gap-6">
      <svg
        viewBox={`0 0 ${size} ${size}`}
        className="h-56 w-56"
        role="img"
        aria-label="The code as a picture"
      >
        <rect width={size} height={size} fill="#fff" />
        <path d={dark.join("")} fill="#000" shapeRendering="crispEdges" />
      </svg>
      <div>
        <p>Point the phone's camera at it, or type there</p>
        <p className="figure text-[52px] leading-tight tracking-wider" data-code>
          {code.code.slice(0, 3)} {code.code.slice(3)}
        </p>
        <p className="text-ink-2" role="timer">
          Good for {left} seconds, and once.
        </p>
      </div>
    </div>
  );
}
