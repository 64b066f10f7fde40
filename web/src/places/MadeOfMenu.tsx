import { useQuery, useQueryClient } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { MOULDINGS, madeOfQuery, mouldingsApi } from "../api/mouldings";
import { refresh } from "../api/refresh";
import type { Act, Problem } from "../api/types";
import { Menu } from "../ui/Menu";

type Props = {
  project: string;
  onAct: (acts: Act[]) => Promise<Problem | null>;
  onProblem: (problem: Problem | null) => void;
};

/** Of which of the workshop's mouldings it is made; and the one that it has, kept among them. */
export function MadeOfMenu({ project, onAct, onProblem }: Props) {
  const client = useQueryClient();
  const query = useQuery(madeOfQuery(project));
  const [kept, setKept] = useState("");
  const keep = async (act: Act, title: string) => {
    const answer = await mouldingsApi.act(query.data?.version ?? 1, [act]);
    onProblem(answer.ok ? null : answer.problem);
    if (answer.ok) setKept(title || "It");
    refresh(client, MOULDINGS);
    query.refetch();
  };
  return query.data?.members.map((member) => (
    <section
      key={member.member}
      aria-label={`Mouldings ${member.title}`.trim()}
      className="border-b border-line py-3"
    >
      <h2 className="mb-1 text-[17px]">{`Your mouldings${member.title ? `: ${member.title}` : ""}`}</h2>
      {member.options.length > 0 && (
        <Menu
          label="Make it of one of your mouldings"
          name="Make it of one of your mouldings"
          className="plain-button my-1 flex w-full items-center justify-between"
          inside="max-h-80 w-80 overflow-y-auto p-1"
        >
          {member.options.map(([title, note, act]) => (
            <DropdownMenu.Item
              key={JSON.stringify(act.value)}
              onSelect={async () => onProblem(await onAct([act as Act]))}
              className="min-h-10 cursor-pointer px-3 py-2 data-[highlighted]:bg-ink data-[highlighted]:text-paper"
            >
              <span className="block font-medium">{title}</span>
              <span className="block text-[15px]">{note}</span>
            </DropdownMenu.Item>
          ))}
        </Menu>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="quiet-button" onClick={() => keep(member.keep as Act, member.title)}>
          Keep this section among them
        </button>
        <Link className="quiet-button inline-flex items-center" to="/mouldings">
          See them all
        </Link>
      </div>
      {kept && <p role="status">It stands among your mouldings now; type there which lengths you have.</p>}
    </section>
  ));
}
