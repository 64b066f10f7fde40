import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, fetched } from "../api/call";
import { projectKey } from "../api/documents";
import SolidCanvas from "./SolidCanvas";

type Props = {
  project: string;
  version: number;
  label: string;
  touched: string[];
  onTouch: (part: string) => void;
};

/** The whole as solids: turned by dragging or the arrow keys, pulled apart, its parts touched. */
export default function SolidView({ project, version, label, touched, onTouch }: Props) {
  const [apart, setApart] = useState(0);
  const solids = useQuery({
    queryKey: projectKey(project, "solids", version),
    queryFn: () =>
      fetched(api.GET("/api/projects/{project_id}/solids", { params: { path: { project_id: project } } })),
    placeholderData: (before) => before,
  });
  return (
    <SolidCanvas solids={solids.data} label={label} touched={touched} onTouch={onTouch} apart={apart}>
      {(toFront) => (
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1 px-6 py-3">
          <label className="flex items-center gap-3">
            Pull apart
            <input
              type="range"
              min={0}
              max={1}
              step={0.02}
              value={apart}
              className="h-10 w-44 accent-ink"
              onChange={(event) => setApart(Number(event.target.value))}
            />
          </label>
          <button type="button" className="plain-button" onClick={toFront}>
            From the front
          </button>
          <span className="text-[15px] text-ink-2">
            Drag to turn, touch a part. Blue: faces that meet. Red: a joint left open.
          </span>
        </div>
      )}
    </SolidCanvas>
  );
}
