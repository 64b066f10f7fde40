import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { pictureQuery } from "../api/fit";
import type { Fit, Point, Reading } from "../api/types";
import type { Camera } from "../drawing/camera";
import { toScreen } from "../drawing/camera";
import { Drawing } from "../drawing/Drawing";
import { Sign } from "../ui/Sign";
import { NOTHING, ReadingField, type Typing } from "./ReadingField";
import { INK, SIGN } from "./ReadingsPanel";
import { placesFor } from "./room";
import type { Doing } from "./useFit";

const PAD = { left: 70, right: 70, top: 44, bottom: 44 };
const NARROW = 640;

/** Which picture is looked at: by name, with how much of it is read. */
export function PictureChooser({
  fit,
  picture,
  onChoose,
}: {
  fit: Fit;
  picture: string;
  onChoose: (id: string) => void;
}) {
  return (
    <label className="flex flex-wrap items-center gap-2">
      <span className="text-ink-2">Looked at</span>
      <select className="plain-button max-w-72" value={picture} onChange={(e) => onChoose(e.target.value)}>
        {[...new Set(fit.pictures.map((p) => p.group))].map((group) => (
          <optgroup key={group} label={group}>
            {fit.pictures
              .filter((p) => p.group === group)
              .map((p) => (
                <option key={p.id} value={p.id}>
                  {p.title} ({p.read} of {p.total})
                </option>
              ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
}

type Props = { project: string; fit: Fit; stamp: unknown; picture: string; made: boolean; doing: Doing };

/** What should be read, on the drawing itself: type what tape and gauge read, where it stands. What has no room there stands below. */
export function ReadingSheet({ project, fit, stamp, picture, made, doing }: Props) {
  const [at, setAt] = useState<string | null>(null);
  // A field moves between drawing and list as the window changes: what is typed in it is kept here.
  const [typing, setTyping] = useState<Record<string, Typing>>({});
  const query = useQuery({
    ...pictureQuery(project, picture, { made, fans: false }, stamp),
    placeholderData: keepPreviousData,
  });
  const readings = useMemo(() => fit.readings.filter((r) => r.picture === picture), [fit, picture]);
  const [width, setWidth] = useState(0);
  const view = query.data?.view;
  const [camera, setCamera] = useState<Camera | null>(null);
  const [height, setHeight] = useState(0);
  const placed = useMemo(
    () => (camera && width >= NARROW ? placesFor(readings, camera, width, height) : new Map<string, Point>()),
    [camera, width, height, readings],
  );
  // Until the drawing has its size nobody can say which have room on it.
  const below = query.isError || camera ? readings.filter((r) => !placed.has(r.key)) : [];
  const numbers = new Map(below.map((r, i) => [r.key, i + 1]));
  const field = (r: Reading, short = false) => (
    <ReadingField
      label={r.label}
      expected={r.expected}
      value={r.value}
      typed={r.typed}
      tone={r.tone}
      short={short}
      kept={[
        typing[r.key] ?? NOTHING,
        (set) =>
          setTyping((all) => ({
            ...all,
            [r.key]: typeof set === "function" ? set(all[r.key] ?? NOTHING) : set,
          })),
      ]}
      typedIn={at === r.key}
      onFocus={() => setAt(r.key)}
      onRead={(text, inches) => doing.read(r.key, text, "", inches)}
    />
  );
  const first = fit.told[0];
  const here = readings.find((r) => r.key === at);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      {first && (
        <p className={`flex items-start gap-2 font-semibold lg:hidden ${INK[first.tone]}`}>
          <Sign is={SIGN[first.tone]} />
          <a href="#readings-mean">{first.title}</a>
        </p>
      )}
      {view && (
        <Drawing
          view={view}
          label={`${view.title}: what should be read`}
          className="fit-drawing min-h-[330px] flex-1 max-sm:min-h-[300px]"
          pad={width < NARROW ? { left: 24, right: 24, top: 24, bottom: 24 } : PAD}
          over={(c) => <ReadingLines camera={c} readings={readings} at={at} numbers={numbers} />}
          onCamera={(c, size) => {
            setCamera(c);
            setWidth(size.width);
            setHeight(size.height);
          }}
          above={() =>
            readings
              .filter((r) => placed.has(r.key))
              .map((r) => {
                const [x, y] = placed.get(r.key) as Point;
                return (
                  <span key={r.key} className="reading-place" style={{ left: x, top: y }}>
                    {field(r)}
                  </span>
                );
              })
          }
        />
      )}
      <p className="min-h-[1.6em] py-1 text-[15px] text-ink-2" aria-live="polite">
        {here
          ? `${here.label}. ${here.how} ${here.near}.`
          : "Type what tape and gauge read, where it stands. Enter takes it."}
      </p>
      {below.length > 0 && (
        <ul className="reading-list">
          {below.map((r) => (
            <li key={r.key}>
              <span className="flex-1">
                <span className="reading-number">{numbers.get(r.key)}</span>
                {r.label}
                <span className="block text-[15px] text-ink-2">{r.near}</span>
              </span>
              {field(r, true)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Where the readings lie: dashed from place to place, the one that is typed in full; those that stand below by their number. */
function ReadingLines({
  camera,
  readings,
  at,
  numbers,
}: {
  camera: Camera;
  readings: Reading[];
  at: string | null;
  numbers: Map<string, number>;
}) {
  return (
    <g pointerEvents="none">
      {readings.map((r) => {
        const [ax, ay] = toScreen(camera, r.a as Point);
        const [bx, by] = toScreen(camera, r.b as Point);
        const dot = Math.hypot(bx - ax, by - ay) < 4;
        const number = numbers.get(r.key);
        const mid: Point = [ax + (bx - ax) * 0.34, ay + (by - ay) * 0.34];
        return (
          <g key={r.key} className="reading-line" data-at={r.key === at || undefined} data-tone={r.tone}>
            {dot ? <circle cx={ax} cy={ay} r={7} /> : <line x1={ax} y1={ay} x2={bx} y2={by} />}
            {number && (
              <>
                <circle className="disc" cx={dot ? ax : mid[0]} cy={dot ? ay : mid[1]} r={11} />
                <text
                  x={dot ? ax : mid[0]}
                  y={dot ? ay : mid[1]}
                  textAnchor="middle"
                  dominantBaseline="central"
                  fontSize={14}
                >
                  {number}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
}
