import type { Act, Fit, PassOpening, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { INK, SIGN } from "./ReadingsPanel";

type Props = { fit: Fit; held: Held<Fit>; onProblem: (problem: Problem | null) => void };

/** What the finished thing goes through, drawn in the opening, its sizes typed there. */
export function PassageSheet({ fit, held, onProblem }: Props) {
  const on = fit.passage.openings.filter((opening) => opening.on);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3">
      {on.length === 0 && (
        <p className="text-[17px]">
          Say beside what it must go through, before anything is cut: a door, a stair, a load space.
        </p>
      )}
      {on.map((opening) => (
        <section
          key={opening.opening}
          aria-label={opening.label}
          className="flex min-h-[300px] flex-1 flex-col"
        >
          <h2 className={`flex items-start gap-2 text-[20px] ${INK[opening.tone]}`}>
            <Sign is={SIGN[opening.tone]} />
            {opening.label}: {opening.text}
          </h2>
          <div className="flex min-h-0 flex-1 gap-3 max-sm:flex-col">
            {opening.pieces.map((piece, i) => (
              <figure
                key={piece.name}
                className={`flex min-h-[240px] min-w-0 flex-col ${i === 0 ? "flex-[2]" : "flex-1"}`}
              >
                <Drawing
                  view={piece.view}
                  label={`${opening.label}, ${piece.name}`}
                  className="min-h-[200px] flex-1"
                  onAct={i === 0 ? held.act : undefined}
                  onLook={i === 0 ? async () => null : undefined}
                  onProblem={onProblem}
                />
                {opening.pieces.length > 1 && (
                  <figcaption className="text-[15px]">
                    {piece.name}: {piece.text}
                  </figcaption>
                )}
              </figure>
            ))}
          </div>
        </section>
      ))}
    </div>
  );
}

/** Which openings there are on the way, and where it comes apart if need be. */
export function PassagePanel({ fit, held, onProblem }: Props) {
  const wish = async (acts: Act[]) => onProblem(await held.act(acts));
  return (
    <>
      <h2 className="text-[20px]">What it must go through</h2>
      {fit.passage.openings.map((opening) => (
        <OpeningSwitch
          key={opening.opening}
          opening={opening}
          held={held}
          onWish={wish}
          onProblem={onProblem}
        />
      ))}
      {fit.passage.split.length > 0 && (
        <section aria-labelledby="split" className="mt-4">
          <h2 id="split" className="text-[20px]">
            Where it comes apart
          </h2>
          {fit.passage.split.map((text) => (
            <p key={text} className="mt-1">
              {text}
            </p>
          ))}
        </section>
      )}
      <p className="mt-4 text-[15px] text-ink-2">
        Clear sizes: between the stops, under the closer, with the door as far open as it goes. Pushed
        straight, without lifting over a sill.
      </p>
    </>
  );
}

function OpeningSwitch({
  opening,
  held,
  onWish,
  onProblem,
}: {
  opening: PassOpening;
  held: Held<Fit>;
  onWish: (acts: Act[]) => void;
  onProblem: (problem: Problem | null) => void;
}) {
  return (
    <div className="border-b border-line py-2">
      <button
        type="button"
        className="plain-button"
        aria-pressed={opening.on}
        onClick={() => onWish(opening.switch as Act[])}
      >
        {opening.label}
      </button>
      {opening.text && <p className="mt-1 first-letter:uppercase">{opening.text}</p>}
      {opening.controls.map((control) => (
        <ControlField
          key={control.id}
          control={control}
          onAct={held.act}
          onLook={async () => null}
          onProblem={onProblem}
        />
      ))}
    </div>
  );
}
