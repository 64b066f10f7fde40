import { useState } from "react";
import type { Act, Problem, Table, Tables } from "../api/types";
import type { Held } from "../api/useDocument";
import { Controls, useActs } from "./parts";

type Props = {
  held: Held<Tables>;
  onProblem: (problem: Problem | null) => void;
};

/** One of the workshop's tables, every figure to be typed over, with where it comes from. */
export function TableSheet({ table, held, onProblem }: Props & { table: Table | undefined }) {
  const act = useActs({ held, onProblem });
  if (!table) return null;
  return (
    <>
      <h2 className="text-[21px]">{table.title}</h2>
      <p className="text-[15px] text-ink-2">
        {table.note} What you type is yours from then on, in every project.
      </p>
      <div className="finish-groups">
        {table.rows.map((row) => (
          <section key={row.name || table.id} className="min-w-0" aria-label={row.name || table.title}>
            <h3 className="flex items-baseline justify-between gap-2 text-[18px] font-semibold">
              {row.name || table.title}
              <span className="text-[15px] font-normal text-ink-2">{row.source}</span>
            </h3>
            <Controls controls={row.controls} held={held} onProblem={onProblem} />
            {row.remove.length > 0 && (
              <button type="button" className="plain-button" onClick={() => act(row.remove as Act[])}>
                Take it away<span className="sr-only">: {row.name}</span>
              </button>
            )}
          </section>
        ))}
      </div>
      {table.add && (
        <NewRow
          table={table}
          onAdd={(like, name) => held.act([{ op: "choose", path: table.add, value: { like, name } }])}
        />
      )}
    </>
  );
}

function NewRow({
  table,
  onAdd,
}: {
  table: Table;
  onAdd: (like: string, name: string) => Promise<Problem | null>;
}) {
  const [name, setName] = useState("");
  const [like, setLike] = useState("");
  const [wrong, setWrong] = useState<Problem | null>(null);
  const chosen = table.rows.some((row) => row.name === like) ? like : (table.rows[0]?.name ?? "");
  return (
    <form
      className="mt-4 flex flex-wrap items-center gap-2"
      onSubmit={async (event) => {
        event.preventDefault();
        const problem = await onAdd(chosen, name);
        setWrong(problem);
        if (!problem) setName("");
      }}
    >
      <label className="flex items-center gap-2">
        One more, called
        <input
          className="min-h-10 rounded-[3px] border border-line bg-paper px-2"
          value={name}
          maxLength={30}
          aria-invalid={wrong !== null}
          onChange={(event) => {
            setName(event.target.value);
            setWrong(null);
          }}
        />
      </label>
      <label className="flex items-center gap-2">
        like
        <select className="plain-button" value={chosen} onChange={(event) => setLike(event.target.value)}>
          {table.rows.map((row) => (
            <option key={row.name} className="bg-paper text-ink">
              {row.name}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="plain-button">
        Add it
      </button>
      {wrong && <p role="alert">{wrong.detail}</p>}
    </form>
  );
}

/** Which table. */
export function TablesPanel({
  tables,
  here,
  onChoose,
}: {
  tables: Table[];
  here: string;
  onChoose: (id: string) => void;
}) {
  return (
    <>
      <h2 className="text-[20px]">Your workshop's tables</h2>
      <p className="text-[15px] text-ink-2">
        What every figure in this place is reckoned with. All of them are usual figures until you type your
        own.
      </p>
      <ul className="mt-2">
        {tables.map((table) => (
          <li key={table.id}>
            <button
              type="button"
              className="step-row w-full text-left"
              aria-current={table.id === here ? "step" : undefined}
              onClick={() => onChoose(table.id)}
            >
              {table.title}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
