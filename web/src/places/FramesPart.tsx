import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { frameQuery, framesQuery, makeFrame, mouldingsApi } from "../api/mouldings";
import type { Act, Content, Mouldings, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { SaidLines } from "../finish/parts";
import { INK, SIGN } from "../fit/ReadingsPanel";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { TextField } from "../ui/TextField";

/** A content, and of which moulding its frame is looked at; none: the content itself is in hand. */
export type Picked = { content: string; moulding: string | null };

type Props = {
  held: Held<Mouldings>;
  shown: Mouldings;
  picked: Picked | null;
  onPick: (picked: Picked | null) => void;
  onProblem: (problem: Problem | null) => void;
};

/** What is to be framed, row by row, in each moulding. */
export function FramesSheet({ held, shown, picked, onPick, onProblem }: Props) {
  const query = useQuery(framesQuery());
  const add = async () => {
    const before = new Set(shown.contents.map((c) => c.id));
    onProblem(await held.act([{ op: "choose", path: "contents.new", value: true }]));
    const made = (await mouldingsApi.read()).contents.find((c) => !before.has(c.id));
    if (made) onPick({ content: made.id, moulding: null });
  };
  const frames = query.data;
  return (
    <>
      <h2 className="text-[24px]">Frames that come out</h2>
      <p className="max-w-[75ch] text-ink-2">
        Each thing to be framed, in each moulding: how large the frame is outside, how much moulding it needs,
        and whether it can be made of what there is. Each by itself, as if no other were cut.
      </p>
      {query.isPending && <p role="status">Working them out…</p>}
      {query.isError && <p role="alert">{query.error.message}</p>}
      {frames && frames.rows.length > 0 && frames.mouldings.length > 0 && (
        <div className="mt-3 overflow-x-auto">
          <table className="frames-table">
            <caption className="sr-only">Frames by what is to be framed and by moulding</caption>
            <thead>
              <tr>
                <th scope="col">To be framed</th>
                {frames.mouldings.map(([id, name]) => (
                  <th key={id} scope="col">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {frames.rows.map((row) => {
                const content = shown.contents.find((c) => c.id === row.content);
                return (
                  <tr key={row.content}>
                    <th scope="row">
                      <button
                        type="button"
                        className="frame-cell"
                        aria-pressed={picked?.content === row.content && picked.moulding === null}
                        onClick={() => onPick({ content: row.content, moulding: null })}
                      >
                        <span className="block font-semibold">{row.title}</span>
                        <span className="figure block font-normal text-ink-2">{content?.size_text}</span>
                      </button>
                    </th>
                    {row.cells.map((cell) => (
                      <td key={cell.moulding}>
                        <button
                          type="button"
                          className="frame-cell"
                          aria-pressed={picked?.content === row.content && picked.moulding === cell.moulding}
                          onClick={() => onPick({ content: row.content, moulding: cell.moulding })}
                        >
                          {cell.figure && <span className="figure block text-[17px]">{cell.figure}</span>}
                          {cell.needs && (
                            <span className="block text-[15px] text-ink-2">needs {cell.needs}</span>
                          )}
                          <span className={`flex items-start gap-1 text-[15px] ${INK[cell.tone]}`}>
                            <Sign is={SIGN[cell.tone]} className="frame-sign" />
                            {cell.text}
                          </span>
                        </button>
                      </td>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
      {frames && frames.mouldings.length === 0 && (
        <p className="mt-3">There is no moulding yet: add one in the other tab.</p>
      )}
      {frames?.left_out && <p className="mt-2">{frames.left_out}</p>}
      <p className="mt-3">
        <button type="button" className="plain-button" onClick={add}>
          Add something to be framed
        </button>
      </p>
    </>
  );
}

/** One frame with all that is to be said of it, or what is to be framed. */
export function FramesPanel(props: Props) {
  const { shown, picked } = props;
  const content = shown.contents.find((c) => c.id === picked?.content);
  const moulding = shown.mouldings.find((m) => m.id === picked?.moulding);
  if (!content) return <p>Touch a frame in the table for its parts, or a row's beginning for its sizes.</p>;
  if (!moulding) return <ContentPanel {...props} content={content} />;
  return <OneFrame content={content.id} moulding={moulding.id} onProblem={props.onProblem} />;
}

function OneFrame({
  content,
  moulding,
  onProblem,
}: {
  content: string;
  moulding: string;
  onProblem: (problem: Problem | null) => void;
}) {
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const query = useQuery(frameQuery(content, moulding));
  const frame = query.data;
  if (!frame) return <p role="status">{query.isError ? query.error.message : "Working it out…"}</p>;
  const make = async () => {
    setBusy(true);
    const answer = await makeFrame(content, moulding);
    setBusy(false);
    if (answer.ok) navigate(`/project/${answer.data.id}`);
    else onProblem(answer.problem);
  };
  return (
    <section aria-label={frame.title}>
      <h2 className="text-[20px]">{frame.title}</h2>
      <SaidLines lines={frame.lines} label={frame.title} />
      {frame.possible && (
        <button type="button" className="plain-button mt-3" disabled={busy} onClick={make}>
          Make this frame
        </button>
      )}
    </section>
  );
}

function ContentPanel({ held, content, onPick, onProblem }: Props & { content: Content }) {
  const act = async (acts: Act[]) => onProblem(await held.act(acts));
  const at = `contents.${content.id}`;
  return (
    <section aria-label={content.title} key={content.id}>
      <h2 className="text-[20px]">{content.title}</h2>
      <TextField
        label="Called"
        value={content.name}
        onText={(text) => act([{ op: "type", path: `${at}.name`, text }])}
      />
      {content.controls.map((c) => (
        <ControlField key={c.id} control={c} onAct={held.act} onLook={held.look} onProblem={onProblem} />
      ))}
      <p className="text-[15px] text-ink-2">{content.stack_text}</p>
      <TextField
        label="Weighs, kg"
        value={content.weight_typed}
        onText={(text) => act([{ op: "type", path: `${at}.weight_kg`, text }])}
      />
      {!content.weight_typed && <p className="text-[15px] text-ink-2">{content.weight_text}.</p>}
      <div className="mt-4 flex flex-wrap gap-2 border-t border-line pt-3">
        <button
          type="button"
          className="plain-button"
          onClick={() => act([{ op: "choose", path: "contents.new", value: content.id }])}
        >
          One more like it
        </button>
        <button
          type="button"
          className="plain-button"
          onClick={() => {
            onPick(null);
            act([{ op: "choose", path: at, value: null }]);
          }}
        >
          Take it away<span className="sr-only">: {content.title}</span>
        </button>
      </div>
    </section>
  );
}
