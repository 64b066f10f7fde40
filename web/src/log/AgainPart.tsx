import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { projectKey } from "../api/documents";
import { againQuery, buildAgain, chooseBeside } from "../api/log";
import { SaidLines } from "../finish/parts";
import type { LogDoing } from "./LogPlace";

/** What several orders share: one plan of the boards, and each setting of the saw set once. */
export function AgainSheet({ project }: LogDoing) {
  const query = useQuery({ ...againQuery(project.id, project.version), placeholderData: keepPreviousData });
  if (!query.data) return <p className="mt-3">Opening…</p>;
  const orders = query.data.orders.filter((order) => order.chosen);
  return (
    <div className="mt-2 max-w-[860px]">
      <h2 className="text-[21px]">{query.data.headline}</h2>
      <p className="text-ink-2">
        {orders.length > 0
          ? `Cut together with ${orders.map((order) => order.name).join(", ")}: one plan of the boards for all, and each setting set once.`
          : "Made by itself. Choose beside what is to be cut together with it: one plan of the boards for all, and each setting set once."}
      </p>
      <div className="mt-3">
        <SaidLines lines={query.data.shared} label="Settings" />
      </div>
    </div>
  );
}

/** Build it again, and what is cut together. */
export function AgainPanel({ project, onProblem }: LogDoing) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const query = useQuery({ ...againQuery(project.id, project.version), placeholderData: keepPreviousData });
  const [name, setName] = useState(`${project.name}, again`);
  const [wood, setWood] = useState("");
  const [away, setAway] = useState<string[]>([]);
  const [orders, setOrders] = useState("1");
  const found = query.data;
  if (!found) return null;
  const count = Number(orders);
  const right = Number.isInteger(count) && count >= 1 && count <= found.most;
  const build = async (then: string) => {
    const answer = await buildAgain(project.id, { name, wood, away, orders: count });
    onProblem(answer.ok ? null : answer.problem);
    if (answer.ok) {
      client.invalidateQueries({ queryKey: ["projects"] });
      navigate(`/project/${answer.data.projects[0]}/${then}`);
    }
  };
  return (
    <>
      <h2 className="text-[20px]">Build it again</h2>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          build(count > 1 ? "log" : "");
        }}
      >
        <label className="flex items-center justify-between gap-3 py-1">
          Called
          <input
            className="text-input w-60"
            maxLength={80}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="flex items-center justify-between gap-3 py-1">
          Of
          <select className="plain-button" value={wood} onChange={(event) => setWood(event.target.value)}>
            <option value="" className="bg-paper text-ink">
              {found.wood}, as this one
            </option>
            {found.woods
              .filter((one) => one !== found.wood)
              .map((one) => (
                <option key={one} className="bg-paper text-ink">
                  {one}
                </option>
              ))}
          </select>
        </label>
        <label className="flex items-center justify-between gap-3 py-1">
          How many
          <input
            className="text-input w-20 text-right"
            inputMode="numeric"
            value={orders}
            aria-invalid={!right}
            onChange={(event) => setOrders(event.target.value)}
          />
        </label>
        {!right && <p role="alert">From 1 to {found.most} at once.</p>}
        {found.tools.length > 1 && (
          <fieldset className="py-1">
            <legend>With these tools</legend>
            {found.tools.map(([id, tool]) => (
              <label key={id} className="flex min-h-10 items-center gap-2">
                <input
                  type="checkbox"
                  className="h-5 w-5"
                  checked={!away.includes(id)}
                  onChange={(event) =>
                    setAway(event.target.checked ? away.filter((one) => one !== id) : [...away, id])
                  }
                />
                {tool}
              </label>
            ))}
          </fieldset>
        )}
        <div className="mt-1 flex flex-wrap gap-2">
          <button type="submit" className="plain-button" disabled={!right || !name.trim()}>
            {count > 1 ? `Build ${count} of it` : "Build it again"}
          </button>
          {count === 1 && (
            <button
              type="button"
              className="plain-button"
              disabled={!name.trim()}
              onClick={() => build("rescale")}
            >
              At another size
            </button>
          )}
        </div>
      </form>
      {found.orders.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Cut together with</h2>
          <ul className="max-h-80 overflow-y-auto">
            {found.orders.map((order) => (
              <li key={order.id}>
                <label className="flex min-h-10 items-center gap-2">
                  <input
                    type="checkbox"
                    className="h-5 w-5"
                    checked={order.chosen}
                    onChange={async (event) => {
                      const answer = await chooseBeside(
                        project.id,
                        found.boards_version,
                        order.id,
                        event.target.checked,
                      );
                      onProblem(answer.ok ? null : answer.problem);
                      client.invalidateQueries({ queryKey: projectKey(project.id) });
                    }}
                  />
                  {order.name}
                </label>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
