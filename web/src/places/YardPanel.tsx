import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { askYard, PRICES, pricesFromTable, pricesQuery } from "../api/boards";
import { refresh } from "../api/refresh";
import type { Act, Problem } from "../api/types";
import { TableButton } from "./RackSheet";

type Props = {
  project: string;
  onAct: (acts: Act[]) => Promise<void>;
  onChanged: () => void;
  onProblem: (problem: Problem | null) => void;
};

/** What can be bought, as the last list says, and how old that is. */
export function YardPanel({ project, onAct, onChanged, onProblem }: Props) {
  const client = useQueryClient();
  const query = useQuery(pricesQuery(project));
  const [asking, setAsking] = useState(false);
  const [notice, setNotice] = useState("");
  const prices = query.data;
  const taken = () => {
    refresh(client, PRICES);
    onChanged();
  };
  const ask = async () => {
    setAsking(true);
    setNotice("");
    const answer = await askYard(project);
    setAsking(false);
    if (!answer.ok) return onProblem(answer.problem);
    setNotice(answer.data.notice || "This is the newest list.");
    taken();
  };
  return (
    <>
      <h2 className="text-[20px]">The yard</h2>
      <p>{prices?.age ?? "Opening…"}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="plain-button" disabled={asking} onClick={ask}>
          {asking ? "Asking…" : "Ask for the newest list"}
        </button>
        <TableButton
          label="List from a CSV"
          onProblem={onProblem}
          onTable={async (text) => {
            const answer = await pricesFromTable(project, text, "");
            if (answer.ok) taken();
            return answer.ok ? null : answer.problem;
          }}
        />
      </div>
      {notice && (
        <p role="status" className="mt-1 font-medium">
          {notice}
        </p>
      )}
      <ul className="mt-3">
        {prices?.lines.map((line) => (
          <li key={line.id} className="flex items-center gap-3 border-t border-line py-1.5">
            <div className={`min-w-0 flex-1 ${line.sold_out ? "line-through" : ""}`}>
              <div className="font-medium first-letter:uppercase">{line.name}</div>
              <div className="text-[15px] text-ink-2">
                <span className="figure">{line.size_text}</span> {line.stock_text}
              </div>
            </div>
            <span className="figure">{line.price_text}</span>
            <button
              type="button"
              className="quiet-button shrink-0"
              aria-pressed={line.sold_out}
              onClick={async () => {
                await onAct([{ op: "choose", path: `sold_out.${line.id}`, value: !line.sold_out }]);
                refresh(client, PRICES);
              }}
            >
              {line.sold_out ? "Use it again" : "Not to be had"}
              <span className="sr-only">: {line.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
