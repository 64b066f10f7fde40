import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { Link } from "react-router";
import { keepMouldingPhoto, MOULDINGS, mouldingsApi } from "../api/mouldings";
import { refresh } from "../api/refresh";
import type { Act, Moulding, Mouldings, Problem } from "../api/types";
import { type Held, useDocument } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { ControlField } from "../ui/ControlField";
import { PageHead } from "../ui/PageHead";
import { PhotoButton } from "../ui/PhotoButton";
import { Sign } from "../ui/Sign";
import { TabbedPlace } from "../ui/TabbedPlace";
import { TextField } from "../ui/TextField";
import { UndoRedo } from "../ui/UndoRedo";
import { ConflictBar } from "./ConflictBar";
import { FramesPanel, FramesSheet, type Picked } from "./FramesPart";

const TABS = [
  ["mouldings", "Mouldings"],
  ["frames", "Frames that come out"],
] as const;
const STALE = [[...MOULDINGS, "frames"], ["project"]];
const THUMB = { left: 6, right: 6, top: 6, bottom: 6 };

/** The workshop's mouldings, and the frames that come out of them for what is to be framed. */
export function MouldingsPage() {
  const held = useDocument(mouldingsApi, STALE);
  const [tab, setTab] = useState<string>("mouldings");
  const [chosen, setChosen] = useState<string | null>(null);
  const [picked, setPicked] = useState<Picked | null>(null);
  const [trouble, setTrouble] = useState<Problem | null>(null);
  const onProblem = useCallback(
    (problem: Problem | null) => setTrouble(problem && problem.status !== 409 ? problem : null),
    [],
  );
  const doing = useCallback(
    async (what: () => Promise<Problem | null>) => onProblem(await what()),
    [onProblem],
  );
  useEffect(() => {
    document.title = "Mouldings: Fennup";
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = ["INPUT", "SELECT", "TEXTAREA"].includes((event.target as HTMLElement).tagName);
      if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z") return;
      event.preventDefault();
      doing(event.shiftKey ? held.redo : held.undo);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [held.undo, held.redo, doing]);

  const { shown } = held;
  if (held.missing) return <p className="p-6">{held.missing}</p>;
  if (!shown) return <p className="p-6">Opening…</p>;
  const moulding = shown.mouldings.find((m) => m.id === chosen) ?? shown.mouldings[0];
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <PageHead>
        <h1 className="text-[20px]">Mouldings</h1>
        <span className="ml-auto flex items-center">
          <UndoRedo here={held} doing={doing} />
        </span>
      </PageHead>
      {held.conflict && <ConflictBar onTheirs={held.takeTheirs} onMine={() => doing(held.keepMine)} />}
      {held.unsaved && (
        <p role="alert" className="border-b-2 border-warn bg-paper px-6 py-2 font-medium">
          Not saved yet. {held.unsaved.detail}
        </p>
      )}
      {trouble && (
        <p
          role="alert"
          className="flex items-start gap-2 border-b-2 border-warn bg-paper px-6 py-2 font-medium"
        >
          <Sign is="warning" className="text-warn" />
          {trouble.detail}
        </p>
      )}
      <TabbedPlace
        label="Mouldings"
        tabs={TABS}
        tab={tab}
        onTab={setTab}
        sheet={
          tab === "mouldings" ? (
            <MouldingsSheet
              held={held}
              shown={shown}
              moulding={moulding}
              onChoose={setChosen}
              onProblem={onProblem}
            />
          ) : (
            <FramesSheet held={held} shown={shown} picked={picked} onPick={setPicked} onProblem={onProblem} />
          )
        }
        panels={{
          mouldings: <MouldingPanel held={held} moulding={moulding} onProblem={onProblem} />,
          frames: (
            <FramesPanel held={held} shown={shown} picked={picked} onPick={setPicked} onProblem={onProblem} />
          ),
        }}
      />
    </div>
  );
}

type Doing = { held: Held<Mouldings>; onProblem: (problem: Problem | null) => void };

/** All of them small, the one in hand large: every figure is typed where it stands. */
function MouldingsSheet({
  held,
  shown,
  moulding,
  onChoose,
  onProblem,
}: Doing & { shown: Mouldings; moulding: Moulding | undefined; onChoose: (id: string) => void }) {
  const add = async () => {
    const before = new Set(shown.mouldings.map((m) => m.id));
    onProblem(await held.act([{ op: "choose", path: "mouldings.new", value: true }]));
    const made = (await mouldingsApi.read()).mouldings.find((m) => !before.has(m.id));
    if (made) onChoose(made.id);
  };
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-[24px]">{moulding?.title ?? "Mouldings"}</h2>
        <button type="button" className="plain-button" onClick={add}>
          Add a moulding
        </button>
        <Link className="plain-button inline-flex items-center" to="/bring-in">
          Read one from a drawing
        </Link>
      </div>
      {moulding ? (
        <>
          <p className="text-ink-2">
            {moulding.size_text}, {moulding.found_text}
            {moulding.finish && `, comes with ${moulding.finish} on it`}
          </p>
          <p className="text-[15px] text-ink-2 max-sm:hidden">
            Cut across, its opening edge at the left, its show side up. Type over any size.
          </p>
          <div className="flex flex-1 overflow-x-auto">
            <Drawing
              key={moulding.id}
              view={moulding.view}
              label={`${moulding.title}, cut across`}
              className="h-[380px] w-[600px] shrink-0 sm:h-auto sm:shrink sm:min-h-[380px] sm:w-auto sm:flex-1"
              onAct={held.act}
              onLook={held.look}
              onProblem={onProblem}
            />
          </div>
          {moulding.doubts.map((text) => (
            <p key={text} className="flex items-start gap-2">
              <Sign is="note" />
              {text}
            </p>
          ))}
        </>
      ) : (
        <p className="max-w-[60ch]">
          No moulding yet. Add one and type its sizes; or draw it and{" "}
          <Link className="underline" to="/bring-in">
            bring the drawing in
          </Link>{" "}
          as SVG or DXF; or open a frame and keep its section here.
        </p>
      )}
      <ul aria-label="All mouldings" className="mt-3 flex shrink-0 gap-3 overflow-x-auto pb-2">
        {shown.mouldings.map((m) => (
          <li key={m.id}>
            <button
              type="button"
              className="moulding-card"
              aria-pressed={m.id === moulding?.id}
              onClick={() => onChoose(m.id)}
            >
              <Drawing
                view={{ ...m.view, dimensions: [], marks: [] }}
                label=""
                className="thumb h-16"
                pad={THUMB}
              />
              <span className="block font-medium">{m.title}</span>
              <span className="block text-[15px] text-ink-2">{m.found_text}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What else there is to say about the one in hand. */
function MouldingPanel({ held, moulding, onProblem }: Doing & { moulding: Moulding | undefined }) {
  const client = useQueryClient();
  const act = async (acts: Act[]) => onProblem(await held.act(acts));
  if (!moulding) return <p>Add a moulding first.</p>;
  const at = `mouldings.${moulding.id}`;
  const photo = async (name: string, content: string) => {
    const answer = await keepMouldingPhoto(held.saved?.version ?? 0, moulding.id, name, content);
    onProblem(answer.ok ? null : answer.problem);
    if (answer.ok) client.setQueryData(mouldingsApi.key, answer.data);
    refresh(client, MOULDINGS);
  };
  const groups = [...new Set(moulding.controls.map((c) => c.group))];
  return (
    <section aria-label={moulding.title} key={moulding.id}>
      <TextField
        label="Called"
        value={moulding.name}
        onText={(text) => act([{ op: "type", path: `${at}.name`, text }])}
      />
      <TextField
        label="Kind of wood"
        value={moulding.wood}
        onText={(text) => act([{ op: "type", path: `${at}.wood`, text }])}
      />
      <TextField
        label="Finish on it already"
        value={moulding.finish}
        onText={(text) => act([{ op: "type", path: `${at}.finish`, text }])}
      />
      {groups.map((group) => (
        <section key={group} aria-label={moulding.controls.find((c) => c.group === group)?.group_label}>
          <h2 className="mt-3 border-t border-line pt-2 text-[17px]">
            {moulding.controls.find((c) => c.group === group)?.group_label}
          </h2>
          {moulding.controls
            .filter((c) => c.group === group)
            .map((c) => (
              <ControlField
                key={c.id}
                control={c}
                onAct={held.act}
                onLook={held.look}
                onProblem={onProblem}
              />
            ))}
        </section>
      ))}
      <section aria-label="Photo" className="mt-3 border-t border-line pt-2">
        <h2 className="text-[17px]">Photo</h2>
        {moulding.photo && (
          <img
            className="log-photo my-2"
            src={`/api/mouldings/photos/${moulding.photo}`}
            alt={moulding.title}
          />
        )}
        <span className="flex flex-wrap gap-2">
          <PhotoButton label={moulding.photo ? "Another one" : "Take or choose"} onPhoto={photo} />
          {moulding.photo && (
            <button
              type="button"
              className="plain-button"
              onClick={() => act([{ op: "choose", path: `${at}.photo`, value: null }])}
            >
              Take it away<span className="sr-only">: photo</span>
            </button>
          )}
        </span>
      </section>
      <div className="mt-4 flex flex-wrap gap-2 border-t border-line pt-3">
        <button
          type="button"
          className="plain-button"
          onClick={() => act([{ op: "choose", path: "mouldings.new", value: moulding.id }])}
        >
          One more like it
        </button>
        <button
          type="button"
          className="plain-button"
          onClick={() => act([{ op: "choose", path: at, value: null }])}
        >
          Take this moulding away
        </button>
      </div>
    </section>
  );
}
