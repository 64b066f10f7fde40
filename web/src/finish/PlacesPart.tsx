import type { Finish, Group, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { Care, Controls, noLook, WhyRows } from "./parts";

type Props = {
  held: Held<Finish>;
  onProblem: (problem: Problem | null) => void;
};

/** What follows, under headings: figures that open to say where they come from. */
export function GroupsSheet({
  groups,
  view,
  held,
  onProblem,
}: Props & { groups: Group[]; view?: Finish["site"]["view"] }) {
  return (
    <>
      {view && (
        <Drawing
          view={view}
          label={view.title}
          className="min-h-[320px] flex-1"
          onAct={held.act}
          onLook={noLook}
          onProblem={onProblem}
        />
      )}
      <div className="finish-groups">
        {groups
          .filter((group) => group.rows.length > 0 || group.note)
          .map((group) => (
            <section key={group.title} className="min-w-0">
              <h2 className="text-[20px]">{group.title}</h2>
              {group.note && <p className="py-1 text-[15px]">{group.note}</p>}
              <WhyRows rows={group.rows} />
            </section>
          ))}
      </div>
    </>
  );
}

/** What one says about it. */
export function GroupsPanel({ groups, care, held, onProblem }: Props & { groups: Group[]; care: string[] }) {
  return (
    <>
      {groups
        .filter((group) => group.controls.length > 0)
        .map((group) => (
          <section key={group.title} className="mb-4">
            <h2 className="text-[20px]">{group.title}</h2>
            <Controls controls={group.controls} held={held} onProblem={onProblem} />
          </section>
        ))}
      <Care care={care} />
    </>
  );
}
