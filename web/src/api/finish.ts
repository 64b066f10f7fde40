import { answered, api, fetched } from "./call";
import { projectKey } from "./documents";
import type { Act, Finish, Tables } from "./types";
import type { DocumentApi } from "./useDocument";

type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];
const of = (project_id: string) => ({ params: { path: { project_id } } });

export const TABLES = ["tables"];

/** How a project is fastened, coated, planned by the day and set up. */
export const finishApi = (id: string): DocumentApi<Finish, Finish> => {
  const read = () => fetched(api.GET("/api/projects/{project_id}/finish", of(id)));
  return {
    key: projectKey(id, "finish"),
    read,
    act: (version, acts) =>
      answered(
        api.POST("/api/projects/{project_id}/finish/acts", {
          ...of(id),
          body: { version, acts: acts as Edits },
        }),
      ),
    undo: (version) =>
      answered(api.POST("/api/projects/{project_id}/finish/undo", { ...of(id), body: { version } })),
    redo: (version) =>
      answered(api.POST("/api/projects/{project_id}/finish/redo", { ...of(id), body: { version } })),
    look: async () => ({ ok: true, data: await read() }),
    merged: (saved) => saved,
  };
};

/** What one fastens, glues, coats and reckons with. */
export const tablesApi: DocumentApi<Tables, Tables> = {
  key: TABLES,
  read: () => fetched(api.GET("/api/tables")),
  act: (version, acts) => answered(api.POST("/api/tables/acts", { body: { version, acts: acts as Edits } })),
  undo: (version) => answered(api.POST("/api/tables/undo", { body: { version } })),
  redo: (version) => answered(api.POST("/api/tables/redo", { body: { version } })),
  look: async () => ({ ok: true, data: await fetched(api.GET("/api/tables")) }),
  merged: (saved) => saved,
};

/** A kind of joint, cut open or as its fasteners go in. */
export const jointQuery = (id: string, key: string, pattern: boolean, stamp: unknown) => ({
  queryKey: projectKey(id, "finish-joint", key, pattern, stamp),
  queryFn: () =>
    fetched(
      api.GET("/api/projects/{project_id}/finish/joint", {
        params: { path: { project_id: id }, query: { key, pattern } },
      }),
    ),
});

export type Side = "front" | "back" | "below";

/** The whole from one side, with what becomes of each of its sides. */
export const paintQuery = (id: string, side: Side, stamp: unknown) => ({
  queryKey: projectKey(id, "finish-faces", side, stamp),
  queryFn: () =>
    fetched(
      api.GET("/api/projects/{project_id}/finish/faces", {
        params: { path: { project_id: id }, query: { side } },
      }),
    ),
});

export const didStep = (id: string, task: string) =>
  answered(
    api.POST("/api/projects/{project_id}/finish/did", {
      ...of(id),
      body: { id: crypto.randomUUID(), task },
    }),
  );
export const takeStepBack = (id: string, record: string) =>
  answered(
    api.POST("/api/projects/{project_id}/finish/back", {
      ...of(id),
      body: { id: crypto.randomUUID(), record },
    }),
  );
export const askWeather = (id: string, version: number) =>
  answered(api.POST("/api/projects/{project_id}/finish/weather", { ...of(id), body: { version } }));
