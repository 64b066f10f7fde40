import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { paintQuery, type Side } from "../api/finish";
import type { Finish, Painted, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { FaceTargets } from "../drawing/FaceTargets";
import { Choice, Choices } from "../ui/Choices";
import { Care, Controls, SaidLines, useActs, WhyRows } from "./parts";

const SIDES: [Side, string][] = [
  ["front", "front"],
  ["back", "back"],
  ["below", "below"],
];
const PAD = { left: 20, right: 20, top: 16, bottom: 16 };

type Props = {
  finish: Finish;
  held: Held<Finish>;
  onProblem: (problem: Problem | null) => void;
};

/** The whole, painted by touch: take a brush, touch what it is for. */
export function CoatsSheet({
  project,
  finish,
  held,
  stamp,
  onProblem,
}: Props & { project: string; stamp: unknown }) {
  const [side, setSide] = useState<Side>("front");
  const [brush, setBrush] = useState("bare");
  const act = useActs({ held, onProblem });
  const query = useQuery({ ...paintQuery(project, side, stamp), placeholderData: keepPreviousData });
  const faces = (query.data?.faces ?? []) as Painted[];
  const use = new Map(faces.map((face) => [`${face.board} ${face.side}`, face.use]));
  const touch = (board: string, facet: string) => {
    const key = `${board} ${facet}`;
    if (use.get(key) === "glued") return;
    act([{ op: "choose", path: `faces/${key}`, value: use.get(key) === brush ? "coated" : brush }]);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <Choices label="What a touched side becomes">
          {finish.coats.brushes.map(([code, name]) => (
            <Choice key={code} pressed={brush === code} onChoose={() => setBrush(code)}>
              <Swatch use={code} /> {name}
            </Choice>
          ))}
        </Choices>
        <Choices label="Seen from">
          {SIDES.map(([code, name]) => (
            <Choice key={code} pressed={side === code} onChoose={() => setSide(code)}>
              {name}
            </Choice>
          ))}
        </Choices>
      </div>
      <p className="py-1 text-[15px] text-ink-2">
        Take what a side is to become, then touch the side. <Swatch use="glued" /> is glued over and stays
        bare.
      </p>
      {query.data && (
        <Drawing
          view={query.data.view}
          label={`What becomes of each side, seen from the ${side}`}
          className="min-h-[320px] flex-1"
          pad={PAD}
          over={(camera) => (
            <>
              <Hatches />
              <FaceTargets
                faces={faces}
                chosen={[]}
                camera={camera}
                look={(face) => `painted-${face.use} light-${face.tone}`}
                onTouch={(face) => touch(face.board, face.side)}
              />
            </>
          )}
        />
      )}
    </>
  );
}

/** What a side becomes, small, as on the drawing. */
function Swatch({ use }: { use: string }) {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true" className="mr-1 inline align-[-3px]">
      <Hatches />
      <rect x="1" y="1" width="16" height="16" className={`face painted-${use}`} />
    </svg>
  );
}

function Hatches() {
  return (
    <defs>
      <pattern
        id="hatch-glued"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect className="hatch-under" width="6" height="6" />
        <line className="hatch-glued" x1="0" y1="0" x2="0" y2="6" />
      </pattern>
      <pattern id="hatch-hidden" width="9" height="9" patternUnits="userSpaceOnUse">
        <rect className="hatch-under" width="9" height="9" />
        <line className="hatch-hidden" x1="0" y1="4.5" x2="9" y2="4.5" />
      </pattern>
      <pattern id="hatch-soil" width="7" height="7" patternUnits="userSpaceOnUse">
        <rect className="hatch-under" width="7" height="7" />
        <circle className="hatch-soil" cx="2" cy="2" r="1.4" />
        <circle className="hatch-soil" cx="5.5" cy="5.5" r="1.4" />
      </pattern>
      <pattern id="hatch-contents" width="8" height="6" patternUnits="userSpaceOnUse">
        <rect className="hatch-under" width="8" height="6" />
        <path className="hatch-contents" d="M0 3q2-3 4 0t4 0" />
      </pattern>
    </defs>
  );
}

/** With what it is coated and glued, how much of it, what stays bare, what to smooth first. */
export function CoatsPanel({ finish, held, onProblem }: Props) {
  const { coats } = finish;
  return (
    <>
      <h2 className="text-[20px]">Coats and glue</h2>
      <Controls controls={coats.controls} held={held} onProblem={onProblem} />
      <div className="mt-2">
        <WhyRows rows={coats.rows} />
      </div>
      {coats.bare.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Stays bare for the glue</h2>
          <SaidLines lines={coats.bare} label="Stays bare for the glue" />
        </section>
      )}
      {coats.smooth.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Smooth these before it is together</h2>
          <p className="text-[15px] text-ink-2">Afterwards there is little room for a hand and a block.</p>
          <SaidLines lines={coats.smooth} label="Smooth these before it is together" />
        </section>
      )}
      <Care care={coats.care} />
      <details className="mt-4">
        <summary className="text-[20px]">Single parts: where they are, and of what</summary>
        <Controls controls={coats.parts} held={held} onProblem={onProblem} />
      </details>
    </>
  );
}
