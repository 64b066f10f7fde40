import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { jointQuery } from "../api/finish";
import type { Finish, HeldJoint, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { INK, SIGN } from "../fit/ReadingsPanel";
import { Reminder } from "../ui/Reminder";
import { Sign } from "../ui/Sign";
import { Care, Controls, noLook, SaidLines, WhyRows } from "./parts";

type Props = {
  project: string;
  finish: Finish;
  held: Held<Finish>;
  stamp: unknown;
  here: HeldJoint | undefined;
  onChoose: (key: string) => void;
  onProblem: (problem: Problem | null) => void;
};

/** One kind of joint, cut open with what holds it; below it where fasteners go in. */
export function FastenSheet({ project, finish, held, stamp, here, onChoose, onProblem }: Props) {
  if (!here) return <p className="py-4">Nothing meets here: there is nothing to fasten.</p>;
  return (
    <>
      <label className="flex flex-wrap items-center gap-2">
        <span>Joint</span>
        <select
          className="plain-button min-w-0 max-w-full flex-1"
          value={here.key}
          onChange={(event) => onChoose(event.target.value)}
        >
          {finish.fasten.joints.map((joint) => (
            <option key={joint.key} value={joint.key} className="bg-paper text-ink">
              {joint.name}
            </option>
          ))}
        </select>
      </label>
      <p className="mt-1 text-[19px] font-medium">
        {here.said}
        <span className="ml-2 text-[15px] font-normal text-ink-2">in each joint</span>
      </p>
      <JointDrawing
        project={project}
        joint={here}
        pattern={false}
        held={held}
        stamp={stamp}
        onProblem={onProblem}
      />
      {here.patterned && (
        <JointDrawing
          project={project}
          joint={here}
          pattern={true}
          held={held}
          stamp={stamp}
          onProblem={onProblem}
        />
      )}
      {here.marks && (
        <p className="flex flex-wrap items-center justify-between gap-2 py-1 text-[15px] text-ink-2">
          <span>{here.marks}</span>
          <a
            className="plain-button"
            href={`/api/projects/${project}/finish/pattern.pdf?key=${encodeURIComponent(here.key)}`}
            download
          >
            That row at true size
          </a>
        </p>
      )}
    </>
  );
}

type DrawnProps = Pick<Props, "project" | "held" | "stamp" | "onProblem"> & {
  joint: HeldJoint;
  pattern: boolean;
};

function JointDrawing({ project, joint, pattern, held, stamp, onProblem }: DrawnProps) {
  const query = useQuery({
    ...jointQuery(project, joint.key, pattern, stamp),
    placeholderData: keepPreviousData,
  });
  if (!query.data) return null;
  return (
    <Drawing
      view={query.data}
      label={`${joint.name}: ${query.data.title.toLowerCase()}`}
      className={pattern ? "min-h-[190px] flex-[2]" : "min-h-[260px] flex-[3]"}
      onAct={held.act}
      onLook={noLook}
      onProblem={onProblem}
    />
  );
}

/** What holds the joint in hand, why so long, what speaks against it; then all joints, what to buy, which bag. */
export function FastenPanel({ project, finish, held, here, onChoose, onProblem }: Omit<Props, "stamp">) {
  const { fasten } = finish;
  return (
    <>
      {here && (
        <>
          <h2 className="text-[20px]">How it is held</h2>
          <Reminder project={project} reminder={here.reminder} />
          <Controls controls={here.controls} held={held} onProblem={onProblem} />
          {here.doubts.length > 0 && <SaidLines lines={here.doubts} label="What speaks against it" />}
          <div className="mt-2">
            <WhyRows rows={here.rows} />
          </div>
          <Care care={here.care} />
        </>
      )}
      {fasten.met.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">In each other's way</h2>
          <SaidLines lines={fasten.met} label="In each other's way" />
        </section>
      )}
      <section className="mt-4">
        <h2 className="text-[20px]">Where it stands</h2>
        <Controls controls={fasten.controls} held={held} onProblem={onProblem} />
        {fasten.advice.map((text) => (
          <p key={text} className="py-0.5 text-[15px]">
            {text}
          </p>
        ))}
      </section>
      <h2 className="mt-4 text-[20px]">All joints</h2>
      <ol>
        {fasten.joints.map((joint) => (
          <li key={joint.key} className="border-b border-line py-1">
            <button
              type="button"
              className="step-row flex w-full items-start gap-2 text-left"
              aria-current={joint.key === here?.key ? "step" : undefined}
              onClick={() => onChoose(joint.key)}
            >
              <span className={INK[joint.tone]}>
                <Sign is={SIGN[joint.tone]} />
              </span>
              <span>
                {joint.name}
                <span className="block text-[15px] text-ink-2">
                  {joint.said}; number {joint.numbers}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ol>
      {fasten.buys.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">To buy</h2>
          <SaidLines lines={fasten.buys} label="To buy" />
        </section>
      )}
      <details className="mt-4">
        <summary className="text-[20px]">Bags, for taking it apart</summary>
        <p className="text-[15px] text-ink-2">
          Write the joints' numbers on both boards at each joint, and on the bag with its fasteners.
        </p>
        <SaidLines lines={fasten.bags} label="Bags" />
      </details>
    </>
  );
}
