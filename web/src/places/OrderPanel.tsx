import type { Act, SchoolChoice, Steps } from "../api/types";
import { Choice, Choices } from "../ui/Choices";

type Props = {
  shown: Steps;
  here: string | undefined;
  onAct: (acts: Act[]) => void;
  onDrop: (key: string, before: string | null) => void;
};

/** In which order the work is done, and how lengths are found. */
export function OrderPanel({ shown, here, onAct, onDrop }: Props) {
  const keys = shown.steps.filter((step) => !step.key.startsWith("test ")).map((step) => step.key);
  const place = here ? keys.indexOf(here) : -1;
  const before = keys[place - 1];
  const after = keys[place + 1];
  return (
    <>
      <h2 className="text-[22px]">How the work is ordered</h2>
      <Rows label="How the work is ordered" choices={shown.schools} onAct={onAct} />
      <p className="mt-1 text-ink-2">{shown.fewest}</p>
      <h3 className="mt-4 text-[18px]">How lengths are found</h3>
      <Choices label="How lengths are found">
        {shown.lengths.map((choice) => (
          <Choice key={choice.label} pressed={choice.chosen} onChoose={() => onAct(choice.acts as Act[])}>
            {choice.label}
          </Choice>
        ))}
      </Choices>
      <h3 className="mt-4 text-[18px]">The step that is open</h3>
      <p className="text-[15px] text-ink-2">
        Drag a step before another one, or move the open one from here. What cannot be is said.
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="plain-button"
          disabled={place < 1}
          onClick={() => here && before && onDrop(here, before)}
        >
          Earlier
        </button>
        <button
          type="button"
          className="plain-button"
          disabled={place < 0 || !after}
          onClick={() => after && here && onDrop(after, here)}
        >
          Later
        </button>
        {shown.order_reset.length > 0 && (
          <button type="button" className="plain-button" onClick={() => onAct(shown.order_reset as Act[])}>
            Forget my order
          </button>
        )}
      </div>
    </>
  );
}

/** Choices with what each comes to. */
function Rows({
  label,
  choices,
  onAct,
}: {
  label: string;
  choices: SchoolChoice[];
  onAct: (acts: Act[]) => void;
}) {
  return (
    <Choices label={label} className="flex flex-col">
      {choices.map((choice) => (
        <Choice
          key={choice.label}
          pressed={choice.chosen}
          className="way-row"
          onChoose={() => onAct(choice.acts as Act[])}
        >
          <span className="flex-1 text-left">{choice.label}</span>
          <span className="figure text-[17px]">{choice.note}</span>
        </Choice>
      ))}
    </Choices>
  );
}
