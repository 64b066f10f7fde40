import type { Act, Control, Part, PartBrief, Problem, Sheet } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "../ui/Choices";
import { ControlField } from "../ui/ControlField";
import { FigureText } from "../ui/FigureText";
import { Why } from "../ui/Why";

const CHIP = "plain-button aria-pressed:bg-touched! aria-pressed:text-ink!";
const PART_PAD = { left: 14, right: 14, top: 16, bottom: 16 };

type Props = {
  sheet: Sheet;
  part: PartBrief;
  card: Part | null | undefined;
  rail: string;
};

type Does = {
  onTouch: (part: string) => void;
  onAct: (acts: Act[]) => Promise<Problem | null>;
  onLook: (acts: Act[] | null) => Promise<Problem | null>;
  onProblem: (problem: Problem | null) => void;
};

/** The touched part: drawn to scale from its face, with every number that is needed to cut it, each of which opens. */
export function PartCard({ sheet, part: brief, card, rail, ...does }: Props & Does) {
  const own = sheet.controls.filter((c) => c.group === "part" && c.about === rail);
  return (
    <>
      <Choices label="Parts" className="mb-3 flex flex-wrap gap-1.5">
        {sheet.parts.map((p) => (
          <Choice key={p.id} pressed={p.id === brief.id} className={CHIP} onChoose={() => does.onTouch(p.id)}>
            {p.tags[p.boards.includes(rail) ? p.boards.indexOf(rail) : 0]}
            {p.boards.length > 1 &&
              (p.boards.includes(rail) ? ` of ${p.boards.length}` : ` ×${p.boards.length}`)}
          </Choice>
        ))}
      </Choices>
      {card ? (
        <Card
          part={card}
          rail={rail}
          touched={brief.names[brief.boards.indexOf(rail)] ?? card.name}
          own={own}
          {...does}
        />
      ) : (
        <p>Opening…</p>
      )}
    </>
  );
}

/** Every number that is needed to cut it. */
function Card({
  part,
  rail,
  touched,
  own,
  onTouch,
  onAct,
  onLook,
  onProblem,
}: { part: Part; rail: string; touched: string; own: Control[] } & Does) {
  return (
    <>
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[22px]">{touched}</h2>
        <span className="text-right text-ink-2">
          {part.boards.length > 1 ? `${part.count_text}: ${part.name}` : part.count_text}
        </span>
      </div>
      <p className="text-ink-2">{part.section_text}</p>
      {part.hand_text && <p className="font-medium">{part.hand_text}</p>}
      <Drawing
        view={part.view}
        label={`${part.name}, seen from its face, ${part.upper} up`}
        className="mt-2 h-36"
        pad={PART_PAD}
        touched={part.boards}
      />
      <p className="mb-2 text-[15px] text-ink-2">
        {part.ends.length
          ? `Face towards you, ${part.upper} up; the pencil triangle points to it. Red dots: long points. Hatched: waste.`
          : "Upper face towards you. Red: its outline there. Dashed: the outline underneath."}
      </p>
      {own.length > 0 && (
        <div className="mb-2 border-t border-line pt-1">
          {own.map((c) => (
            <ControlField key={c.id} control={c} onAct={onAct} onLook={onLook} onProblem={onProblem} />
          ))}
        </div>
      )}
      <div className="mb-3 grid grid-cols-2 gap-2">
        {part.ends.map((end) => (
          <details key={end.end} className="border border-ink p-2.5">
            <summary className="list-none">
              <span className="block text-ink-2">{end.name}</span>
              {end.cuts.map((cut, i) => (
                <span key={`${cut.leans} ${cut.bevel} ${cut.miter.spoken}`} className="block">
                  {i > 0 && <span className="block text-ink-2">then</span>}
                  <FigureText
                    figure={cut.miter}
                    className={`leading-tight ${i ? "text-[22px]" : "text-[30px]"}`}
                  />
                  <span className="block">{cut.leans}</span>
                  <span className="block">{cut.bevel}</span>
                </span>
              ))}
              <span className="text-[15px] text-ink-2 underline decoration-dotted">why</span>
            </summary>
            <ul className="mt-1 text-[15px]">
              {end.why.map((line) => (
                <li key={line} className="py-0.5">
                  {line}
                </li>
              ))}
            </ul>
          </details>
        ))}
      </div>
      {part.edges.map((edge) => (
        <p
          key={`${edge.label} ${edge.figure.spoken}`}
          className="flex items-baseline justify-between gap-3 border-t border-line py-2"
        >
          <span>
            {edge.label}
            <span className="block text-[15px] text-ink-2">{edge.note}</span>
          </span>
          <FigureText figure={edge.figure} className="text-right text-[22px]" exactly />
        </p>
      ))}
      {part.ladder.map((rung) => (
        <Why key={rung.id} title={rung.label} note={rung.note} lines={rung.why}>
          <FigureText
            figure={rung.figure}
            className={`text-right ${rung.here ? "text-[22px]" : "text-[18px]"}`}
            exactly
          />
        </Why>
      ))}
      {part.ways.length > 0 && (
        <details className="border-t border-line py-2">
          <summary className="min-h-10 py-2">Other ways to lay it on the saw</summary>
          {part.ways.map((way) => (
            <p key={way} className="py-0.5 text-[15px]">
              {way}
            </p>
          ))}
        </details>
      )}
      <div className="mt-2 border-t border-line pt-2">
        {part.boards.length > 1 && (
          <>
            <div className="mb-1">Show one of them on the drawing</div>
            <Choices label="Show one of them on the drawing" className="mb-1 flex flex-wrap gap-1.5">
              {part.boards.map((member, i) => (
                <Choice
                  key={member}
                  pressed={member === rail}
                  className={CHIP}
                  onChoose={() => onTouch(member)}
                >
                  {part.tags[i]}
                </Choice>
              ))}
            </Choices>
          </>
        )}
      </div>
    </>
  );
}
