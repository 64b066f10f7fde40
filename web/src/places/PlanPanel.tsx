import { useState } from "react";
import { cutsDone } from "../api/boards";
import type { Act, Boards, PiecePlace, Plan, PlanBoard, Problem, Project, Rack } from "../api/types";
import type { Held } from "../api/useDocument";
import { Choice, Choices } from "../ui/Choices";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { TextField } from "../ui/TextField";

const TONE = { closes: "text-go", opens: "text-warn", fails: "text-cut" };

type Props = {
  project: Project;
  boards: Held<Boards>;
  shown: Boards;
  rack: Rack | undefined;
  touched: string | null;
  onProject: (acts: Act[]) => void;
  onRack: (acts: Act[]) => void;
  onDone: () => void;
  onProblem: (problem: Problem | null) => void;
};

/** How good the plan is, the part in hand, and what is wished of it. */
export function PlanPanel({
  project,
  boards,
  shown,
  rack,
  touched,
  onProject,
  onRack,
  onDone,
  onProblem,
}: Props) {
  const { plan } = shown;
  // Said here, and not where it is done: that goes while the plan is made anew.
  const [said, setSaid] = useState("");
  const wish = async (acts: Act[]) => onProblem(await boards.act(acts));
  const place = plan && touched ? placeOf(plan, touched) : null;
  return (
    <>
      {plan && <Verdict plan={plan} onProject={onProject} onWish={wish} onRack={onRack} />}
      {place && plan && <PieceCard place={place} plan={plan} rack={rack} onAct={wish} />}
      <section aria-label="What is wished" className="mt-4 border-t-2 border-ink pt-2">
        {shown.controls.map((c) => (
          <ControlField
            key={c.id}
            control={c}
            onAct={boards.act}
            onLook={async () => null}
            onProblem={onProblem}
          />
        ))}
        <TextField
          label="Only this wood"
          value={shown.wood}
          onText={(text) => wish([{ op: "type", path: "wood", text }])}
        />
        <Released shown={shown} onAct={wish} />
        {shown.others.length > 0 && (
          <details className="mt-2">
            <summary className="min-h-10 py-2 font-medium">Cut together with another project</summary>
            <Choices label="Cut together with">
              {shown.others.map((other) => (
                <Choice
                  key={other.id}
                  pressed={other.chosen}
                  onChoose={() => wish([{ op: "choose", path: `beside.${other.id}`, value: !other.chosen }])}
                >
                  {other.name}
                </Choice>
              ))}
            </Choices>
          </details>
        )}
      </section>
      {plan && plan.boards.length > 0 && !shown.stale && (
        <Done
          project={project}
          shown={shown}
          onDone={(what) => {
            setSaid(what);
            onDone();
          }}
          onProblem={onProblem}
        />
      )}
      {said && (
        <p role="status" className="mt-1 font-medium">
          {said}
        </p>
      )}
      <p className="mt-4 border-t border-line pt-3 text-[15px] text-ink-2">
        Look a board over before it is cut: a knot or a split that is not marked here is not planned around.
        Long boards need a stand at both sides of the saw.
      </p>
    </>
  );
}

function Verdict({
  plan,
  onProject,
  onWish,
  onRack,
}: {
  plan: Plan;
  onProject: (acts: Act[]) => void;
  onRack: (acts: Act[]) => void;
  onWish: (acts: Act[]) => void;
}) {
  return (
    <section aria-label="How good it is">
      <h2 className={`flex items-center gap-2 text-[20px] ${TONE[plan.tone]}`}>
        <Sign is={plan.tone} />
        {plan.headline}
      </h2>
      {plan.short.map((short) => (
        <p key={short.text} className="mt-1">
          {short.text}
        </p>
      ))}
      {(plan.cures.length > 0 || plan.yard_would) && (
        <div className="mt-2">
          <p className="mb-1 font-medium">It would fit with</p>
          <div className="flex flex-col items-start gap-1.5">
            {plan.yard_would && (
              <button
                type="button"
                className="plain-button text-left"
                onClick={() => onWish([{ op: "choose", path: "use_yard", value: true }])}
              >
                {plan.yard_would}
              </button>
            )}
            {plan.cures.map((cure) => (
              <button
                key={cure.label}
                type="button"
                className="plain-button text-left"
                onClick={() => onProject(cure.acts as Act[])}
              >
                {cure.label}
              </button>
            ))}
          </div>
        </div>
      )}
      {plan.unplaced.map(({ text, let_go, add }) => (
        <p key={text} className="mt-1">
          {text}{" "}
          {let_go.length > 0 && (
            <button type="button" className="plain-button" onClick={() => onWish(let_go as Act[])}>
              Let it go elsewhere
            </button>
          )}
          {add.length > 0 && (
            <button type="button" className="plain-button" onClick={() => onRack(add as Act[])}>
              Put such a board on the rack
            </button>
          )}
        </p>
      ))}
      {plan.quality.map((text) => (
        <p key={text} className="mt-1 text-ink-2">
          {text}
        </p>
      ))}
      {plan.proof && <p className="mt-1 text-[15px] text-ink-2">{plan.proof}</p>}
      {plan.moved.length > 0 && (
        <div className="mt-2" role="status">
          <p className="font-medium">What moved</p>
          {plan.moved.map((text) => (
            <p key={text}>{text}</p>
          ))}
        </div>
      )}
      {plan.others.length > 0 && (
        <div className="mt-2">
          <p className="font-medium">With another length</p>
          {plan.others.map((text) => (
            <p key={text} className="text-ink-2">
              {text}
            </p>
          ))}
        </div>
      )}
    </section>
  );
}

type Place = { piece: PiecePlace; board: PlanBoard };

function placeOf(plan: Plan, key: string): Place | null {
  for (const board of plan.boards) {
    const piece = board.pieces.find((p) => p.key === key);
    if (piece) return { piece, board };
  }
  return null;
}

function PieceCard({
  place,
  plan,
  rack,
  onAct,
}: {
  place: Place;
  plan: Plan;
  rack: Rack | undefined;
  onAct: (acts: Act[]) => void;
}) {
  const { piece, board } = place;
  const pin = (to: string | null) => onAct([{ op: "choose", path: `pins.${piece.key}`, value: to }]);
  const known = new Map(plan.boards.map((b) => [b.source, b.name]));
  for (const b of rack?.boards ?? []) if (!known.has(b.id)) known.set(b.id, `${b.title}, from the rack`);
  return (
    <section aria-label={piece.name} className="mt-4 border-t-2 border-ink pt-2">
      <h2 className="text-[20px]">
        {piece.name}, out of {board.name}
      </h2>
      <p className="text-ink-2">{piece.text}</p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="plain-button"
          aria-pressed={piece.pinned}
          onClick={() => pin(piece.pinned ? null : board.source)}
        >
          {piece.pinned ? "Kept here" : "Keep it here"}
        </button>
        <label className="flex items-center gap-2">
          Put it into
          <select
            className="plain-button max-w-52"
            value={board.source}
            onChange={(event) => pin(event.target.value)}
          >
            {[...known].map(([source, name]) => (
              <option key={source} value={source} className="bg-paper text-ink">
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
    </section>
  );
}

/** Boards that were left out or that the yard did not have, to be let in again. */
function Released({ shown, onAct }: { shown: Boards; onAct: (acts: Act[]) => void }) {
  if (shown.left_out.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="mb-1">Left out</p>
      <div className="flex flex-wrap gap-1.5">
        {shown.left_out.map((board) => (
          <button
            key={board.path}
            type="button"
            className="plain-button"
            onClick={() => onAct([{ op: "choose", path: board.path, value: false }])}
          >
            {board.name}: use it again
          </button>
        ))}
      </div>
    </div>
  );
}

/** When everything is cut, what is left goes back to the rack. */
function Done({
  project,
  shown,
  onDone,
  onProblem,
}: {
  project: Project;
  shown: Boards;
  onDone: (said: string) => void;
  onProblem: (problem: Problem | null) => void;
}) {
  const done = async () => {
    const answer = await cutsDone(project.id, shown.rack_version);
    onProblem(answer.ok ? null : answer.problem);
    if (!answer.ok) return;
    const { back, gone } = answer.data;
    onDone(
      `${gone} taken off the rack, ${back} offcut${back === 1 ? "" : "s"} put on it. Undo stands with the rack.`,
    );
  };
  return (
    <section aria-label="When all is cut" className="mt-4 border-t-2 border-ink pt-3">
      <button type="button" className="plain-button" onClick={done}>
        All cut: put the offcuts on the rack
      </button>
    </section>
  );
}
