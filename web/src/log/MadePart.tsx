import type { Log } from "../api/types";
import { SaidLines, useActs } from "../finish/parts";
import { INK, SIGN } from "../fit/ReadingsPanel";
import { Sign } from "../ui/Sign";
import { TextField } from "../ui/TextField";
import type { LogDoing } from "./LogPlace";

/** Every figure that was measured beside what it should have been. */
export function MadeSheet({ log }: { log: Log }) {
  if (log.made.length === 0)
    return (
      <p className="mt-3 max-w-[60ch]">
        Nothing has been measured yet. What is measured at the bench and read at the dry fit stands here
        beside what was planned.
      </p>
    );
  return (
    <table className="mt-3 w-full max-w-[860px] border-collapse">
      <caption className="sr-only">As planned and as made</caption>
      <thead>
        <tr className="border-b-2 border-ink text-left">
          <th>What</th>
          <th className="text-right">Planned</th>
          <th className="text-right">Made</th>
          <th className="text-right">Off by</th>
        </tr>
      </thead>
      <tbody>
        {log.made.map((line) => (
          <tr key={line.what} className="border-b border-line">
            <td className="py-1.5">{line.what}</td>
            <td className="figure text-right">{line.planned}</td>
            <td className="figure text-right">{line.made}</td>
            <td className={`figure text-right ${INK[line.tone]}`}>
              <span className="inline-flex items-center gap-1.5">
                {line.tone !== "none" && <Sign is={SIGN[line.tone]} />}
                {line.off}
              </span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What was agreed otherwise, and whose plan it is. */
export function MadePanel({ log, held, onProblem }: LogDoing) {
  const act = useActs({ held, onProblem });
  return (
    <>
      <h2 className="text-[20px]">Otherwise than drawn</h2>
      {log.changed.length > 0 ? (
        <SaidLines lines={log.changed} label="Otherwise than drawn" />
      ) : (
        <p>Nothing was agreed to be otherwise than drawn.</p>
      )}
      <h2 className="mt-4 text-[20px]">Where the plan comes from</h2>
      {log.texts
        .filter(([path]) => path === "source")
        .map(([path, label, value]) => (
          <TextField
            key={path}
            label={label}
            value={value}
            most={200}
            onText={(text) => act([{ op: "type", path, text, inches_meant: false }])}
          />
        ))}
    </>
  );
}
