import { answered, api, fetched } from "./call";
import type { Act, LookedProject, Project, Workshop } from "./types";
import type { DocumentApi } from "./useDocument";

export const LIST = ["projects"] as const;
export const STARTS = ["starts"] as const;

/** What is known of a project, by what it is asked for: all of it goes stale together. */
export const projectKey = (id: string, ...what: unknown[]) => ["project", id, ...what];

const of = (project_id: string) => ({ params: { path: { project_id } } });
type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];

/** A project as a document; a look brings its drawing and its verdict, and the card that is open. */
export const projectApi = (id: string): DocumentApi<Project, LookedProject> => ({
  key: projectKey(id, "sheet"),
  read: () => fetched(api.GET("/api/projects/{project_id}", of(id))),
  act: (version, acts) =>
    answered(api.POST("/api/projects/{project_id}/acts", { ...of(id), body: { version, acts } })),
  undo: (version) => answered(api.POST("/api/projects/{project_id}/undo", { ...of(id), body: { version } })),
  redo: (version) => answered(api.POST("/api/projects/{project_id}/redo", { ...of(id), body: { version } })),
  look: (acts, card) =>
    answered(api.POST("/api/projects/{project_id}/look", { ...of(id), body: { acts, card } })),
  merged: (saved, looked) => ({ ...saved, echo: looked.echo, sheet: { ...saved.sheet, ...looked.sheet } }),
});

/** The workshop as a document. */
export const workshopApi: DocumentApi<Workshop, Workshop> = {
  key: ["workshop"],
  read: () => fetched(api.GET("/api/workshop")),
  act: (version, acts) =>
    answered(api.POST("/api/workshop/acts", { body: { version, acts: acts as Edits } })),
  undo: (version) => answered(api.POST("/api/workshop/undo", { body: { version } })),
  redo: (version) => answered(api.POST("/api/workshop/redo", { body: { version } })),
  look: (acts) => answered(api.POST("/api/workshop/look", { body: { acts: acts as Edits } })),
  merged: (_, looked) => looked,
};

/** Every part's card of a project as it is saved. */
export const cardsQuery = (id: string, version: number | undefined) => ({
  queryKey: projectKey(id, "parts", version),
  queryFn: () => fetched(api.GET("/api/projects/{project_id}/parts", of(id))),
});
