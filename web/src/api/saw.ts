import { answered, api, fetched } from "./call";
import { projectKey } from "./documents";
import type { Act, SawTest, Steps } from "./types";
import type { DocumentApi } from "./useDocument";

type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];
const of = (project_id: string) => ({ params: { path: { project_id } } });

/** What is wished at the saws, with the steps that follow; nothing is looked at before it is saved. */
export const sawApi = (id: string): DocumentApi<Steps, Steps> => {
  const read = () => fetched(api.GET("/api/projects/{project_id}/steps", of(id)));
  return {
    key: projectKey(id, "steps"),
    read,
    act: (version, acts) =>
      answered(
        api.POST("/api/projects/{project_id}/steps/acts", {
          ...of(id),
          body: { version, acts: acts as Edits },
        }),
      ),
    undo: (version) =>
      answered(api.POST("/api/projects/{project_id}/steps/undo", { ...of(id), body: { version } })),
    redo: (version) =>
      answered(api.POST("/api/projects/{project_id}/steps/redo", { ...of(id), body: { version } })),
    look: async () => ({ ok: true, data: await read() }),
    merged: (saved) => saved,
  };
};

/** One step in full; it hangs on the project, on what is wished, on the workshop. */
export const stepQuery = (id: string, key: string, ...versions: (number | undefined)[]) => ({
  queryKey: projectKey(id, "step", key, ...versions),
  queryFn: () =>
    fetched(
      api.GET("/api/projects/{project_id}/steps/one", {
        params: { path: { project_id: id }, query: { key } },
      }),
    ),
});

/** All steps in full, for paper. */
export const paperQuery = (id: string, version: number | undefined) => ({
  queryKey: projectKey(id, "paper", version),
  queryFn: () => fetched(api.GET("/api/projects/{project_id}/steps/paper", of(id))),
});

export const testSetting = (body: SawTest) => answered(api.POST("/api/workshop/test", { body }));
export const halves = (
  id: string,
  body: { long: string; wide: string; angle: string; kerf: string; gap: string },
) => answered(api.POST("/api/projects/{project_id}/steps/halves", { ...of(id), body }));
export const squareIs = (id: string, body: { apart: string; at: string }) =>
  answered(api.POST("/api/projects/{project_id}/steps/square", { ...of(id), body }));
