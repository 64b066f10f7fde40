import { DropdownMenu } from "radix-ui";
import { useId, useState } from "react";
import type { Act, Control, Problem } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "./Choices";
import { FigureField } from "./FigureField";
import { Menu } from "./Menu";

/** Room for the letters at the ends of lines. */
const PICTURE_PAD = { left: 14, right: 16, top: 14, bottom: 8 };

type Props = {
  control: Control;
  onAct: (acts: Act[]) => Promise<Problem | null>;
  onLook: (acts: Act[] | null) => Promise<Problem | null>;
  onProblem: (problem: Problem | null) => void;
};

/** One thing to decide: a figure, one of a few, one of many, or any number of them. */
export function ControlField({ control, onAct, onLook, onProblem }: Props) {
  const choose = async (acts: Act[]) => onProblem(await onAct(acts));
  const name = `${control.label}`;
  if (control.figure && control.acts) {
    return (
      <div className="flex items-center justify-between gap-3 py-1">
        <span aria-hidden="true">{name}</span>
        <FigureField
          figure={control.figure}
          label={name}
          standing={control.standing}
          acts={control.acts as Act}
          onAct={onAct}
          onLook={onLook}
          words={control.figure.sum && `= ${control.figure.sum}`}
        />
      </div>
    );
  }
  if (control.style === "text" && control.acts) return <Sentence control={control} onAct={onAct} />;
  if (control.style === "list") {
    return (
      <label className="flex items-center justify-between gap-3 py-1">
        <span>{name}</span>
        <select
          className="plain-button max-w-56"
          value={control.options.find((o) => o.chosen)?.code ?? ""}
          onChange={(e) => {
            const option = control.options.find((o) => o.code === e.target.value);
            if (option) choose(option.acts as Act[]);
          }}
        >
          {control.options.map((o) => (
            <option key={o.code} value={o.code} className="bg-paper text-ink">
              {o.label}
            </option>
          ))}
        </select>
      </label>
    );
  }
  if (control.style === "menu") {
    return (
      <Menu
        label={name}
        name={name}
        className="plain-button my-1 flex w-full items-center justify-between"
        inside="max-h-80 w-80 overflow-y-auto p-1"
      >
        {control.options.map((o) => (
          <DropdownMenu.Item
            key={o.code}
            onSelect={() => choose(o.acts as Act[])}
            className="min-h-10 cursor-pointer px-3 py-2 data-[highlighted]:bg-ink data-[highlighted]:text-paper"
          >
            {o.label}
          </DropdownMenu.Item>
        ))}
      </Menu>
    );
  }
  if (control.style === "sentence") {
    return (
      <div className="flex items-center justify-between gap-3 py-1">
        <span>{name}</span>
        {control.options.map((o) => (
          <button
            key={o.code}
            type="button"
            className="plain-button shrink-0"
            onClick={() => choose(o.acts as Act[])}
          >
            {o.label}
            <span className="sr-only">: {name}</span>
          </button>
        ))}
      </div>
    );
  }
  const single = control.options.length === 1;
  return (
    <div className="py-1">
      {!(single && name === control.options[0]?.label) && <div className="mb-1">{name}</div>}
      <Choices label={name}>
        {control.options.map((o) => (
          <Choice
            key={o.code}
            className={o.picture ? "picture-button" : "plain-button"}
            pressed={single ? undefined : o.chosen}
            onChoose={() => (control.style === "pick" && o.chosen ? undefined : choose(o.acts as Act[]))}
          >
            {o.picture && <Drawing view={o.picture} label="" className="mb-1 h-24" pad={PICTURE_PAD} />}
            {o.label}
          </Choice>
        ))}
      </Choices>
    </div>
  );
}

/** Something to be written: sent with Enter or the button, and kept in the field with what is wrong while it cannot be. */
function Sentence({ control, onAct }: Pick<Props, "control" | "onAct">) {
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<Problem | null>(null);
  const inputId = useId();
  const messageId = useId();
  const send = async () => {
    if (!text.trim()) return;
    const problem = await onAct([{ ...(control.acts as Act), text } as Act]);
    setWrong(problem);
    if (!problem) setText("");
  };
  return (
    <form
      className="py-1"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <div className="flex items-center justify-between gap-3">
        <label htmlFor={inputId}>{control.label}</label>
        <input
          id={inputId}
          className="min-h-10 w-40 rounded-[3px] border border-line bg-paper px-2"
          placeholder="foam = 3"
          value={text}
          maxLength={80}
          autoComplete="off"
          aria-invalid={wrong !== null}
          aria-describedby={wrong ? messageId : undefined}
          onChange={(event) => {
            setText(event.target.value);
            setWrong(null);
          }}
        />
        <button type="submit" className="plain-button shrink-0">
          Add<span className="sr-only"> it</span>
        </button>
      </div>
      {wrong && (
        <p id={messageId} role="alert" className="mt-1">
          {wrong.detail}
        </p>
      )}
    </form>
  );
}
