import type { Log, Tables } from "../api/types";
import type { Held } from "../api/useDocument";
import { Controls, useActs, WhyRows } from "../finish/parts";
import { TextField } from "../ui/TextField";
import type { LogDoing } from "./LogPlace";

/** What it costs and brings, each figure with where it comes from. */
export function CostSheet({ log }: { log: Log }) {
  const { cost } = log;
  return (
    <div className="mt-2 max-w-[760px]">
      {cost.note && <p role="status">{cost.note}</p>}
      <WhyRows rows={cost.rows} />
      <p className="mt-3 text-[15px] text-ink-2">
        Touch a figure to see where it comes from. Of every board the used share is counted; overheads and
        taxes go under what else it costs.
      </p>
    </div>
  );
}

/** What is typed for it: of this project, and prices for all. */
export function CostPanel({ log, held, tables, project, onProblem }: LogDoing & { tables: Held<Tables> }) {
  const act = useActs({ held, onProblem });
  return (
    <>
      <h2 className="text-[20px]">This project</h2>
      <Controls controls={log.cost.controls} held={held} onProblem={onProblem} />
      {log.cost.prices.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Your prices</h2>
          <p className="text-[15px] text-ink-2">Kept in the workshop's tables, for all projects.</p>
          <Controls controls={log.cost.prices} held={tables} onProblem={onProblem} />
        </section>
      )}
      <section className="mt-4">
        <h2 className="text-[20px]">A sheet for whoever it is for</h2>
        {log.texts
          .filter(([path]) => path !== "source")
          .map(([path, label, value]) => (
            <TextField
              key={path}
              label={label}
              value={value}
              most={path === "care" ? 600 : 80}
              onText={(text) => act([{ op: "type", path, text, inches_meant: false }])}
            />
          ))}
        <Controls controls={log.sheet} held={held} onProblem={onProblem} />
        <a className="plain-button mt-2 inline-block" href={`/api/projects/${project.id}/files/sheet`}>
          The sheet as PDF
        </a>
      </section>
    </>
  );
}
