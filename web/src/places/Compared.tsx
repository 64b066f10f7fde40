import { useState } from "react";
import type { Comparison } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "../ui/Choices";
import { Sign } from "../ui/Sign";

const PAD = { left: 24, right: 24, top: 20, bottom: 20 };

/** Two projects, or one now and then: drawn over each other or side by side, and whether each closes. */
export function Compared({ both, title }: { both: Comparison; title: string }) {
  const [chosen, setChosen] = useState("");
  const [over, setOver] = useState(true);
  const pair = both.views.find((v) => v.id === chosen) ?? both.views[0];
  return (
    <main className="sheet flex min-w-0 flex-1 flex-col px-6 py-4">
      <h1 className="text-[24px]">{title}</h1>
      <div className="my-2 flex flex-wrap gap-x-6 gap-y-2">
        <Choices label="View" className="flex">
          {both.views.map((v) => (
            <Choice key={v.id} pressed={v === pair} onChoose={() => setChosen(v.id)}>
              {v.short}
            </Choice>
          ))}
        </Choices>
        <Choices label="Drawn" className="flex">
          {[true, false].map((on) => (
            <Choice key={String(on)} pressed={over === on} onChoose={() => setOver(on)}>
              {on ? "One over the other" : "Side by side"}
            </Choice>
          ))}
        </Choices>
      </div>
      {!pair && <p>They have no view in common.</p>}
      {pair && over && (
        <>
          <p className="text-ink-2">
            Solid: {both.sides[0]?.name}. Dashed: {both.sides[1]?.name}.
          </p>
          <Drawing
            key={pair.id}
            view={pair.over}
            label={`${pair.title}, one over the other`}
            pad={PAD}
            className="min-h-[340px] flex-1 lg:min-h-0"
          />
        </>
      )}
      {pair && !over && (
        <div className="grid min-h-0 flex-1 gap-4 sm:grid-cols-2">
          {pair.alone.map((view, i) => (
            <figure key={both.sides[i]?.name} className="flex min-h-[300px] flex-col lg:min-h-0">
              <Drawing
                view={view}
                label={`${both.sides[i]?.name}: ${pair.title}`}
                pad={PAD}
                className="min-h-0 flex-1"
              />
              <figcaption className="text-center font-medium">{both.sides[i]?.name}</figcaption>
            </figure>
          ))}
        </div>
      )}
      <ul className="mt-2">
        {both.sides.map((side) => (
          <li key={side.name} className="flex items-start gap-2">
            <Sign
              is={side.closing.tone}
              className={side.closing.tone === "closes" ? "text-go" : "text-warn"}
            />
            <span>
              <span className="font-medium">{side.name}:</span> {side.closing.headline} {side.closing.detail}
            </span>
          </li>
        ))}
      </ul>
    </main>
  );
}

/** Everything that differs, in the order of the work. */
export function Differences({ both, none }: { both: Comparison; none: string }) {
  const groups = [...new Set(both.differences.map((d) => d.group))];
  return (
    <>
      {both.differences.length === 0 && <p>{none}</p>}
      {groups.map((group) => (
        <table key={group} className="mt-3 w-full table-fixed border-collapse text-left break-words">
          <caption className="text-left text-[17px] font-semibold">{group}</caption>
          <thead>
            <tr className="border-b border-ink text-ink-2">
              <th scope="col" className="w-2/5 py-1 pr-3 font-medium">
                <span className="sr-only">What</span>
              </th>
              {both.sides.map((side) => (
                <th key={side.name} scope="col" className="py-1 pr-3 font-medium">
                  {side.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {both.differences
              .filter((d) => d.group === group)
              .map((d) => (
                <tr key={d.label} className="border-b border-line align-top">
                  <th scope="row" className="py-1.5 pr-3 font-normal">
                    {d.label}
                  </th>
                  <td className="py-1.5 pr-3 font-medium">{d.a}</td>
                  <td className="py-1.5 font-medium">{d.b}</td>
                </tr>
              ))}
          </tbody>
        </table>
      ))}
    </>
  );
}
