import { useEffect, useState } from "react";

/** A line of text, saved when it is left or with Enter; Esc leaves it as it was. */
export function TextField({
  label,
  value,
  most = 60,
  onText,
}: {
  label: string;
  value: string;
  most?: number;
  onText: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const save = () => {
    if (text.trim() !== value) onText(text);
  };
  return (
    <label className="flex items-center justify-between gap-3 py-1">
      <span>{label}</span>
      <input
        className="min-h-10 w-48 rounded-[3px] border border-line bg-paper px-2"
        value={text}
        maxLength={most}
        onChange={(event) => setText(event.target.value)}
        onBlur={save}
        onKeyDown={(event) => {
          if (event.key === "Enter") save();
          if (event.key === "Escape") setText(value);
        }}
      />
    </label>
  );
}
