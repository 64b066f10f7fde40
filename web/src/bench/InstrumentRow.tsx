import { useState } from "react";
import { answered, api } from "../api/call";
import { Sign } from "../ui/Sign";
import type { Instruments } from "./useInstruments";

const LOW = 0.15;

/** What the connected instrument reads now, and the button that takes it. */
export function InstrumentRow({ of }: { of: Instruments }) {
  const { chosen, now } = of;
  if (!chosen) return null;
  return (
    <div className="bench-instrument">
      <span className="flex-1">
        {chosen.name}: <span className="figure text-[24px]">{said(of)}</span>
        {now && now.battery < LOW && (
          <span className="text-warn"> battery {Math.round(now.battery * 100)} %</span>
        )}
        {now?.trouble && (
          <span role="alert" className="flex items-start gap-1 text-warn">
            <Sign is="warning" />
            {now.trouble}
          </span>
        )}
      </span>
      <button type="button" className="bench-small" disabled={!now || now.value === null} onClick={of.take}>
        Take it
      </button>
    </div>
  );
}

const said = ({ now, chosen }: Instruments) =>
  !now || now.value === null
    ? "–"
    : chosen?.unit === "deg"
      ? `${now.value.toFixed(2)}°`
      : `${now.value.toFixed(2)} mm`;

/** Instruments found, connected, and a gauge's zero tried by turning it end for end. */
export function InstrumentSettings({ of }: { of: Instruments }) {
  const { chosen, now } = of;
  const [first, setFirst] = useState<number | null>(null);
  const [told, setTold] = useState<{ is_true: boolean; text: string } | null>(null);
  const begin = () => {
    setTold(null);
    setFirst(now?.value ?? null);
  };
  const second = async () => {
    if (first === null || !now || now.value === null) return;
    const answer = await answered(api.POST("/api/instruments/zero", { body: { first, turned: now.value } }));
    setTold(answer.ok ? answer.data : { is_true: false, text: answer.problem.detail });
    setFirst(null);
  };
  return (
    <section aria-labelledby="instruments" className="mt-4">
      <h2 id="instruments" className="text-[20px]">
        Gauge and caliper
      </h2>
      {of.all.map((one) => (
        <button
          key={one.id}
          type="button"
          className="bench-key mt-2 w-full"
          aria-pressed={chosen?.id === one.id}
          onClick={() => of.connect(chosen?.id === one.id ? null : one)}
        >
          {chosen?.id === one.id ? `${one.name}: connected` : `Connect the ${one.name.toLowerCase()}`}
        </button>
      ))}
      {of.notice && <p className="my-2">{of.notice}</p>}
      <button type="button" className="bench-key mt-2 w-full" onClick={of.find}>
        Look for instruments
      </button>
      {chosen?.unit === "deg" && (
        <div className="mt-3">
          <InstrumentRow of={of} />
          <h3 className="mt-3 text-[18px]">Is its zero true?</h3>
          <p>
            {first === null
              ? "Lay it on the saw's table and keep the reading; then turn it end for end on the same place."
              : `Kept: ${first.toFixed(2)}°. Now turn it end for end on the same place.`}
          </p>
          <button
            type="button"
            className="bench-key my-2 w-full"
            disabled={!now || now.value === null}
            onClick={first === null ? begin : second}
          >
            {first === null ? "Keep this reading" : "It is turned: compare"}
          </button>
          {told && (
            <p
              role="status"
              className={`flex items-start gap-2 font-medium ${told.is_true ? "text-go" : "text-warn"}`}
            >
              <Sign is={told.is_true ? "closes" : "warning"} />
              {told.text}
            </p>
          )}
        </div>
      )}
    </section>
  );
}
