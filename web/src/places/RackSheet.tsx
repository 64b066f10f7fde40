import { useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import type { Act, Problem, Rack, RackBoard } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { TextField } from "../ui/TextField";
import { useScale } from "./useScale";

const PAD = 14;
/** Room under a board for its length, and beside its end for its width. */
const UNDER = 64;
const BESIDE = 120;

type Props = {
  rack: Held<Rack>;
  chosen: string | null;
  onChoose: (id: string) => void;
  onProblem: (problem: Problem | null) => void;
};

/** The rack: every board to scale, its sizes typed where they stand, knots and trims dragged. */
export function RackSheet({ rack, chosen, onChoose, onProblem }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const shown = rack.shown;
  const scale = useScale(holder, shown?.longest_mm ?? 1, 2 * PAD + BESIDE);
  const act = async (acts: Act[]) => onProblem(await rack.act(acts));
  return (
    <div ref={holder} className="pb-6">
      <div className="flex flex-wrap gap-2 px-2.5">
        <button
          type="button"
          className="plain-button"
          onClick={() => act([{ op: "choose", path: "boards.new", value: "board" }])}
        >
          Add a board
        </button>
        <button
          type="button"
          className="plain-button"
          onClick={() => act([{ op: "choose", path: "boards.new", value: "sheet" }])}
        >
          Add a sheet
        </button>
      </div>
      {shown?.boards.length === 0 && <p className="px-2.5 py-4">Nothing lies on the rack yet.</p>}
      {shown?.boards.map((board) => (
        <RackRow
          key={board.id}
          board={board}
          scale={scale}
          chosen={chosen === board.id}
          rack={rack}
          onChoose={onChoose}
          onProblem={onProblem}
        />
      ))}
    </div>
  );
}

type RowProps = Omit<Props, "chosen"> & { board: RackBoard; scale: number; chosen: boolean };

function RackRow({ board, scale, chosen, rack, onChoose, onProblem }: RowProps) {
  const height = board.width_mm * scale + PAD + UNDER;
  const camera = useMemo(() => ({ scale, x: PAD, y: height - UNDER }), [scale, height]);
  const names = useMemo(() => new Map([[board.id, board.title]]), [board.id, board.title]);
  const width = (rack.shown?.longest_mm ?? 1) * scale + 2 * PAD + BESIDE;
  return (
    <section aria-label={board.title} className={`mt-1 ${chosen ? "bg-paper" : ""}`}>
      <div className="flex flex-wrap items-baseline gap-x-3 px-2.5">
        <button
          type="button"
          className="quiet-button text-[16px]"
          aria-pressed={chosen}
          onClick={() => onChoose(board.id)}
        >
          {board.title}
        </button>
        <span className="text-ink-2">{board.wood}</span>
        {board.cautions.length > 0 && (
          <span className="flex items-center gap-1.5 text-warn">
            <Sign is="warning" />
            {board.cautions[0]}
          </span>
        )}
      </div>
      <div className="overflow-x-auto">
        <div style={{ width, height }}>
          <Drawing
            view={board.view}
            label={board.title}
            className="h-full w-full"
            at={camera}
            touched={chosen ? [board.id] : []}
            onTouch={onChoose}
            names={names}
            onAct={rack.act}
            onLook={rack.look}
            onProblem={onProblem}
          />
        </div>
      </div>
    </section>
  );
}

type PanelProps = {
  rack: Held<Rack>;
  board: RackBoard | undefined;
  project: string;
  onTable: (text: string) => Promise<Problem | null>;
  onProblem: (problem: Problem | null) => void;
};

/** What else there is to say about the board in hand, and about the rack. */
export function RackPanel({ rack, board, onTable, onProblem }: PanelProps) {
  const act = async (acts: Act[]) => onProblem(await rack.act(acts));
  return (
    <>
      {board ? (
        <section aria-label={board.title}>
          <h2 className="text-[20px]">{board.title}</h2>
          {board.cautions.map((text) => (
            <p key={text} className="mt-1 flex items-start gap-2 font-medium text-warn">
              <Sign is="warning" />
              {text}
            </p>
          ))}
          <TextField
            label="Called"
            value={board.name}
            onText={(text) => act([{ op: "type", path: `boards.${board.id}.name`, text }])}
          />
          <TextField
            label="Kind of wood"
            value={board.wood}
            onText={(text) => act([{ op: "type", path: `boards.${board.id}.wood`, text }])}
          />
          {board.controls.map((c) => (
            <ControlField key={c.id} control={c} onAct={rack.act} onLook={rack.look} onProblem={onProblem} />
          ))}
          <div className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="plain-button"
              onClick={() => act([{ op: "choose", path: `boards.${board.id}.defects.new`, value: true }])}
            >
              Mark a knot
            </button>
            <button
              type="button"
              className="plain-button"
              onClick={() => act([{ op: "choose", path: "boards.new", value: board.id }])}
            >
              One more like it
            </button>
            <button
              type="button"
              className="plain-button"
              onClick={() => act([{ op: "choose", path: `boards.${board.id}`, value: null }])}
            >
              Take it away
            </button>
          </div>
        </section>
      ) : (
        <p>Touch a board for its grade, its wood, its knots. Type over any size; drag a ring.</p>
      )}
      <section aria-label="The rack" className="mt-5 border-t-2 border-ink pt-3">
        <h2 className="text-[20px]">The rack</h2>
        <p className="text-[15px] text-ink-2">
          It serves all projects. Lengths of mouldings stand{" "}
          <Link className="underline" to="/mouldings">
            with the mouldings
          </Link>
          .
        </p>
        {rack.shown && (
          <ControlField control={rack.shown.keep} onAct={rack.act} onLook={rack.look} onProblem={onProblem} />
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          <a className="plain-button" href="/api/rack.csv" download>
            Save as CSV
          </a>
          <TableButton label="Add from a CSV" onTable={onTable} onProblem={onProblem} />
        </div>
      </section>
    </>
  );
}

/** A file with a table, read and sent; what is wrong with it is said beside the button. */
export function TableButton({
  label,
  onTable,
  onProblem,
}: {
  label: string;
  onTable: (text: string) => Promise<Problem | null>;
  onProblem: (problem: Problem | null) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <>
      <button type="button" className="plain-button" onClick={() => input.current?.click()}>
        {label}
      </button>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv,text/plain"
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        onChange={async (event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (!file) return;
          onProblem(null);
          // A file that is gone or was changed since it was chosen cannot be read any more.
          const text = await file.text().catch(() => null);
          const problem = text === null ? null : await onTable(text);
          setWrong(
            text === null
              ? `${file.name} could not be read. Choose it once more.`
              : problem
                ? problem.detail
                : null,
          );
        }}
      />
      {wrong && (
        <p role="alert" className="basis-full font-medium text-cut">
          {wrong}
        </p>
      )}
    </>
  );
}
