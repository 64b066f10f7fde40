import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, fetched } from "../api/call";
import { projectKey } from "../api/documents";
import type { Act, Face, Point, Problem, Project, Touched } from "../api/types";

type Doing = {
  act: (acts: Act[]) => Promise<Problem | null>;
  onTouch: (part: string) => void;
  onProblem: (problem: Problem | null) => void;
};

const members = (project: Project) => project.sheet.parts.flatMap((part) => part.boards);

/** Fitting a piece: touch the face where it begins, then, on any view, the face where it ends. Esc leaves it. */
export function useFitting(project: Project, { act, onTouch, onProblem }: Doing) {
  const [on, setOn] = useState(false);
  const [first, setFirst] = useState<Touched | null>(null);
  const before = useRef<string[] | null>(null);
  const ask = (from: Touched | null) => ({
    queryKey: projectKey(project.id, "faces", project.version, from?.board, from?.side),
    queryFn: () =>
      fetched(
        api.GET("/api/projects/{project_id}/faces", {
          params: {
            path: { project_id: project.id },
            query: from ? { board: from.board, side: from.side } : {},
          },
        }),
      ),
    enabled: on,
  });
  const all = useQuery({ ...ask(null), placeholderData: keepPreviousData });
  const offered = useQuery(ask(first));

  const leave = () => {
    setOn(false);
    setFirst(null);
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape") {
        setOn(false);
        setFirst(null);
      }
    };
    if (on) window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [on]);
  useEffect(() => {
    if (!before.current) return;
    const made = members(project).filter((id) => !before.current?.includes(id));
    before.current = null;
    if (made.length) onTouch(made[made.length - 1] as string);
  }, [project, onTouch]);

  const touch = async (view: string, face: Face, at: Point | null) => {
    const touched = {
      board: face.board,
      side: face.side,
      view,
      x_mm: at?.[0] ?? null,
      y_mm: at?.[1] ?? null,
    };
    if (!first) return setFirst(touched);
    before.current = members(project);
    const problem = await act([{ op: "fit", a: first, b: touched }]);
    onProblem(problem);
    if (problem) before.current = null;
    else leave();
  };
  const seen = (view: string) => offered.data?.views[view] ?? [];
  const somewhere = Object.values(offered.data?.views ?? {}).some((faces) => faces.length > 0);
  return {
    on,
    toggle: () => (on ? leave() : setOn(true)),
    leave,
    touch,
    faces: seen,
    chosen: (view: string) =>
      (all.data?.views[view] ?? []).filter((f) => f.board === first?.board && f.side === first?.side),
    asks: (view: string) => {
      if (!first) return "Touch the face where the piece begins, just there. Blue lines: faces seen edge on.";
      if (!offered.data || seen(view).length) return "Now the face where it ends. Yellow: where it begins.";
      return somewhere
        ? "No face that looks at it is seen from here: take another view."
        : "No face looks at this one: Esc, and begin on another.";
    },
  };
}
