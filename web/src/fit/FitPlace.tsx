import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { pictureQuery } from "../api/fit";
import type { Fit, Problem, Project, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { TabbedPlace } from "../ui/TabbedPlace";
import { ForecastPanel, ForecastSheet } from "./ForecastPanel";
import { MadePanel, MadeParts } from "./MadePanel";
import { OrderSheet, OrderSteps } from "./OrderPart";
import { PassagePanel, PassageSheet } from "./PassagePart";
import { PictureChooser, ReadingSheet } from "./ReadingSheet";
import { ReadingsPanel } from "./ReadingsPanel";
import { useFit } from "./useFit";

type Props = {
  project: Project;
  fit: Held<Fit>;
  workshop: Held<Workshop>;
  onTab: (tab: string) => void;
  onProblem: (problem: Problem | null) => void;
};

const TABS = [
  ["close", "Will it close?"],
  ["readings", "Readings"],
  ["made", "As made"],
  ["order", "Order"],
  ["passage", "Door"],
] as const;
const PAD = { left: 40, right: 40, top: 30, bottom: 30 };

/** Fit: will it close, what should be read, what to do where it reads something else, in which order it goes together, does it go through the door. */
export function FitPlace({ project, fit, workshop, onTab, onProblem }: Props) {
  const [tab, setTab] = useState<string>("close");
  const [chosen, setChosen] = useState<string | null>(null);
  const [step, setStep] = useState<string | null>(null);
  const [made, setMade] = useState(false);
  const doing = useFit(project.id, onProblem);
  const shown = fit.shown;
  if (!shown) return <main className="sheet flex-1 p-6">Opening…</main>;
  const stamp = [project.version, workshop.saved?.version, shown.version, shown.undo, counted(shown)];
  const picture =
    shown.pictures.find((p) => p.id === chosen)?.id ??
    ((tab === "close" && shown.forecast.picture) || (shown.pictures[0]?.id ?? ""));
  const here = shown.order.steps.find((s) => s.key === step) ?? shown.order.steps[0];
  const open = (next: string) => {
    setTab(next);
    onTab(next);
    if (next === "made") setMade(true);
    if (next === "readings") setMade(false);
  };
  const onPicture = tab === "close" || tab === "readings" || tab === "made";
  return (
    <TabbedPlace
      label="The dry fit"
      tabs={TABS}
      tab={tab}
      onTab={open}
      sheet={
        <>
          <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
            <h1 className="text-[24px]">{project.name}</h1>
            {onPicture && picture && (
              <div className="flex flex-wrap items-center gap-3">
                <PictureChooser fit={shown} picture={picture} onChoose={setChosen} />
                {tab !== "close" && (
                  <fieldset className="flex border border-ink">
                    <legend className="sr-only">Drawn</legend>
                    {[
                      [false, "plan"],
                      [true, "as made"],
                    ].map(([value, name]) => (
                      <button
                        key={String(name)}
                        type="button"
                        className="switch-button"
                        aria-pressed={made === value}
                        onClick={() => setMade(value as boolean)}
                      >
                        {name}
                      </button>
                    ))}
                  </fieldset>
                )}
              </div>
            )}
          </div>
          {tab === "close" && (
            <>
              <ForecastSheet fit={shown} />
              <FanPicture project={project.id} picture={picture} stamp={stamp} times={timesOf(shown)} />
            </>
          )}
          {tab === "readings" && (
            <ReadingSheet
              project={project.id}
              fit={shown}
              stamp={stamp}
              picture={picture}
              made={made}
              doing={doing}
            />
          )}
          {tab === "made" && (
            <>
              <PlainPicture project={project.id} picture={picture} stamp={stamp} made={made} />
              <p className="py-1 text-[15px] text-ink-2">
                {made
                  ? "Drawn as it is made, dashed as it is planned; the difference is drawn larger."
                  : "Drawn as planned."}
              </p>
              <MadeParts parts={shown.made.parts} doing={doing} />
            </>
          )}
          {tab === "order" && (
            <OrderSheet project={project.id} fit={shown} stamp={stamp} here={here} onChoose={setStep} />
          )}
          {tab === "passage" && <PassageSheet fit={shown} held={fit} onProblem={onProblem} />}
        </>
      }
      panels={{
        close: <ForecastPanel fit={shown} held={fit} workshop={workshop} onProblem={onProblem} />,
        readings: <ReadingsPanel fit={shown} held={fit} doing={doing} onProblem={onProblem} />,
        made: <MadePanel fit={shown} doing={doing} />,
        order: <OrderSteps fit={shown} held={fit} here={here} onChoose={setStep} onProblem={onProblem} />,
        passage: <PassagePanel fit={shown} held={fit} onProblem={onProblem} />,
      }}
    />
  );
}

const counted = (fit: Fit) =>
  fit.readings
    .filter((r) => r.record)
    .map((r) => r.record + r.typed)
    .join() +
  fit.gaps.map((g) => g.record).join() +
  fit.made.parts.flatMap((p) => p.rows.map((r) => r.record + (r.value?.typed ?? ""))).join() +
  fit.made.agreed.map((a) => a.record).join();

const timesOf = (fit: Fit) =>
  fit.forecast.wishes.find((c) => c.id === "fan_times")?.options.find((o) => o.chosen)?.label ?? "";

type PictureProps = { project: string; picture: string; stamp: unknown };

/** The joints with what they will open, as fans, drawn larger. */
function FanPicture({ project, picture, stamp, times }: PictureProps & { times: string }) {
  const query = useQuery({
    ...pictureQuery(project, picture, { made: false, fans: true }, stamp),
    enabled: picture !== "",
    placeholderData: keepPreviousData,
  });
  if (!query.data) return null;
  return (
    <>
      <Drawing
        view={query.data.view}
        label={`${query.data.view.title}: what the joints will open`}
        className="min-h-[320px] flex-1"
        pad={PAD}
      />
      <p className="py-1 text-[15px] text-ink-2">
        The fans: what nine in ten joints stay under, drawn {times}. At the last joint, what adds up.
      </p>
    </>
  );
}

function PlainPicture({ project, picture, stamp, made }: PictureProps & { made: boolean }) {
  const query = useQuery({
    ...pictureQuery(project, picture, { made, fans: false }, stamp),
    enabled: picture !== "",
    placeholderData: keepPreviousData,
  });
  if (!query.data) return null;
  return (
    <Drawing
      view={query.data.view}
      label={`${query.data.view.title}${made ? ", as made over the plan" : ", as planned"}`}
      className="min-h-[300px] flex-1"
      pad={PAD}
    />
  );
}
