import { answered, api, fetched } from "./call";
import { projectKey } from "./documents";
import type { Act, Boards, Rack } from "./types";
import type { DocumentApi } from "./useDocument";

type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];
const of = (project_id: string) => ({ params: { path: { project_id } } });
/** Figures are read on the open project's tape and written for it. */
export const voiceOf = (project: string) => ({ params: { query: { project } } });

export const RACK = ["rack"];
export const PRICES = ["prices"];

/** What is wished of a project's boards, with the plan that follows; nothing is looked at before it is saved. */
export const boardsApi = (id: string): DocumentApi<Boards, Boards> => {
  const read = () => fetched(api.GET("/api/projects/{project_id}/boards", of(id)));
  return {
    key: projectKey(id, "boards"),
    read,
    act: (version, acts) =>
      answered(
        api.POST("/api/projects/{project_id}/boards/acts", {
          ...of(id),
          body: { version, acts: acts as Edits },
        }),
      ),
    undo: (version) =>
      answered(api.POST("/api/projects/{project_id}/boards/undo", { ...of(id), body: { version } })),
    redo: (version) =>
      answered(api.POST("/api/projects/{project_id}/boards/redo", { ...of(id), body: { version } })),
    look: async () => ({ ok: true, data: await read() }),
    merged: (saved) => saved,
  };
};

/** The rack as a document, with the open project's figures. */
export const rackApi = (project: string): DocumentApi<Rack, Rack> => ({
  key: [...RACK, project],
  read: () => fetched(api.GET("/api/rack", voiceOf(project))),
  act: (version, acts) =>
    answered(api.POST("/api/rack/acts", { ...voiceOf(project), body: { version, acts: acts as Edits } })),
  undo: (version) => answered(api.POST("/api/rack/undo", { ...voiceOf(project), body: { version } })),
  redo: (version) => answered(api.POST("/api/rack/redo", { ...voiceOf(project), body: { version } })),
  look: (acts) =>
    answered(api.POST("/api/rack/look", { ...voiceOf(project), body: { acts: acts as Edits } })),
  merged: (_, looked) => looked,
});

export const pricesQuery = (project: string) => ({
  queryKey: [...PRICES, project],
  queryFn: () => fetched(api.GET("/api/prices", voiceOf(project))),
});

export const askYard = (project: string) =>
  answered(api.POST("/api/prices/ask", { ...voiceOf(project), body: {} }));
export const pricesFromTable = (project: string, text: string, yard: string) =>
  answered(api.POST("/api/prices/table", { ...voiceOf(project), body: { text, yard } }));
export const rackFromTable = (project: string, version: number, text: string) =>
  answered(api.POST("/api/rack/table", { ...voiceOf(project), body: { version, text } }));
export const stopPlanning = (id: string) =>
  answered(api.POST("/api/projects/{project_id}/boards/stop", { ...of(id), body: {} }));
export const cutsDone = (id: string, version: number) =>
  answered(api.POST("/api/projects/{project_id}/boards/done", { ...of(id), body: { version } }));
export const boughtAs = (id: string, version: number, from_mm: number, text: string) =>
  answered(
    api.POST("/api/projects/{project_id}/boards/bought", { ...of(id), body: { version, from_mm, text } }),
  );
