import type { Fit, FitChangeLine, MadePart, WayOut } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Sign } from "../ui/Sign";
import { Lines } from "./ForecastPanel";
import { ReadingField } from "./ReadingField";
import { INK, SIGN, Strays } from "./ReadingsPanel";
import type { Doing } from "./useFit";

const SMALL_PAD = { left: 14, right: 14, top: 12, bottom: 12 };

/** What was made, what must change so that it closes, and the ways out of what went wrong. */
export function MadePanel({ fit, doing }: { fit: Fit; doing: Doing }) {
  const { made } = fit;
  return (
    <>
      <h2 className={`flex items-start gap-2 text-[20px] ${INK[made.tone]}`}>
        <Sign is={SIGN[made.tone]} />
        {made.headline}
      </h2>
      {made.proposals.map((proposal) => (
        <section key={proposal.title + proposal.text} className="mt-3 border-t-2 border-ink pt-2">
          <h3 className="text-[18px] font-semibold">{proposal.title}</h3>
          <p>{proposal.text}</p>
          <Changes changes={proposal.changes} />
          {proposal.records.length > 0 && (
            <button type="button" className="go-button mt-2" onClick={() => doing.agree(proposal.records)}>
              Yes, cut them so
            </button>
          )}
        </section>
      ))}
      {made.bad.map((bad) => (
        <section key={bad.board} className="mt-4 border-t-2 border-ink pt-2">
          <h3 className="flex items-start gap-2 text-[18px] font-semibold text-warn">
            <Sign is="warning" />
            {bad.text}
          </h3>
          <p className="mt-1 font-medium">
            Ways out, best first. Parts that are cut can only become shorter.
          </p>
          <ol>
            {bad.ways.map((way) => (
              <Way key={way.title} way={way} doing={doing} />
            ))}
          </ol>
        </section>
      ))}
      {made.agreed.length > 0 && (
        <section aria-labelledby="agreed" className="mt-4">
          <h2 id="agreed" className="text-[20px]">
            You said yes to
          </h2>
          <ul>
            {made.agreed.map((entry) => (
              <li key={entry.record} className="flex items-center gap-3 border-b border-line py-1">
                <span className="flex-1">{entry.text}</span>
                <button type="button" className="plain-button" onClick={() => doing.back(entry.record)}>
                  Take back<span className="sr-only">: {entry.text}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {made.laid.length > 0 && (
        <section aria-labelledby="laid" className="mt-4">
          <h2 id="laid" className="text-[20px]">
            Laid together
          </h2>
          {made.laid.map((laid) => (
            <div key={laid.name} className="mb-2">
              <p className={laid.tone === "wrong" ? "font-medium text-warn" : ""}>
                {laid.name} and its like: {laid.text}
              </p>
              <Lines lines={laid.pieces} />
            </div>
          ))}
        </section>
      )}
      {made.hands.length > 0 && (
        <section aria-labelledby="hands" className="mt-4">
          <h2 id="hands" className="text-[20px]">
            Left and right hands
          </h2>
          {made.hands.map((hands) => (
            <div key={hands.text} className="border-b border-line py-2">
              <p>{hands.text}</p>
              <Drawing
                view={hands.view}
                label="One, and the other flipped onto it"
                className="mt-1 h-20"
                pad={SMALL_PAD}
              />
            </div>
          ))}
        </section>
      )}
      <Strays fit={fit} doing={doing} />
    </>
  );
}

/** Every changed figure, old and new. */
function Changes({ changes }: { changes: FitChangeLine[] }) {
  if (changes.length === 0) return null;
  return (
    <table className="fit-changes">
      <thead>
        <tr>
          <th scope="col">Part</th>
          <th scope="col">Was to be</th>
          <th scope="col">Cut it</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((change) => (
          <tr key={change.board}>
            <th scope="row">
              {change.name}
              {change.angles.map((text) => (
                <span key={text} className="block text-[15px] font-normal">
                  {text}
                </span>
              ))}
              {change.note && <span className="block text-[15px] font-normal text-ink-2">{change.note}</span>}
            </th>
            <td>{change.old}</td>
            <td className="font-semibold">{change.new || "the same"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Way({ way, doing }: { way: WayOut; doing: Doing }) {
  return (
    <li className="border-b border-line py-2" data-best={way.best || undefined}>
      <h4 className="text-[17px] font-semibold">{way.title}</h4>
      <p>{way.text}</p>
      <p className="text-[15px] text-ink-2">{way.cost}</p>
      {way.shaves.map((text) => (
        <p key={text} className="font-medium">
          {text}
        </p>
      ))}
      <Changes changes={way.changes} />
      {way.view && (
        <details>
          <summary className="min-h-10 py-2 text-ink-2">See it over the plan</summary>
          <Drawing view={way.view} label={`${way.title}, over the plan`} className="h-44" pad={SMALL_PAD} />
        </details>
      )}
      {way.records.length > 0 && (
        <button
          type="button"
          className={way.best ? "go-button mt-1" : "plain-button mt-1"}
          onClick={() => doing.agree(way.records)}
        >
          {way.yes}
          <span className="sr-only">: {way.title}</span>
        </button>
      )}
    </li>
  );
}

/** Every part with what it should measure and what it does; from the bench it comes by itself. */
export function MadeParts({ parts, doing }: { parts: MadePart[]; doing: Doing }) {
  return (
    <div className="made-parts">
      {parts.map((part) => (
        <details key={part.board} open={part.bad || undefined}>
          <summary className={`min-h-10 py-2 ${part.bad ? "font-semibold text-warn" : ""}`}>
            {part.name}: {part.state}
            {part.rows.some((row) => row.came) && ", measured"}
          </summary>
          <ul className="reading-list">
            {part.rows.map((row) => (
              <li key={row.key}>
                <span className="flex-1">
                  {row.label}
                  {row.came_text && <span className="block text-[15px] text-ink-2">{row.came_text}</span>}
                </span>
                <ReadingField
                  label={`${part.name}, ${row.label}`}
                  expected={row.expected}
                  value={row.value}
                  typed=""
                  tone="none"
                  short
                  onRead={(text, inches) => doing.read(row.key, text, "", inches)}
                />
                {row.record && (
                  <button type="button" className="plain-button" onClick={() => doing.back(row.record)}>
                    Take back
                    <span className="sr-only">
                      : {part.name}, {row.label}
                    </span>
                  </button>
                )}
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="plain-button my-2"
            aria-pressed={part.mirrored !== ""}
            onClick={() =>
              part.mirrored
                ? doing.back(part.mirrored)
                : doing.read(part.mirror_key, "mirror image", "", false)
            }
          >
            Cut the wrong way round<span className="sr-only">: {part.name}</span>
          </button>
        </details>
      ))}
    </div>
  );
}
