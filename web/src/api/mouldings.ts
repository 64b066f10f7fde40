import { answered, api, fetched } from "./call";
import { projectKey } from "./documents";
import type { Act, Mouldings } from "./types";
import type { DocumentApi } from "./useDocument";

type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];
export const MOULDINGS = ["mouldings"];
export const unitHere = (): "mm" | "in" => (localStorage.getItem("unit") === "in" ? "in" : "mm");
const inUnit = () => ({ params: { query: { unit: unitHere() } } });

/** The workshop's mouldings and what is to be framed. */
export const mouldingsApi: DocumentApi<Mouldings, Mouldings> = {
  key: [...MOULDINGS, "all"],
  read: () => fetched(api.GET("/api/mouldings", inUnit())),
  act: (version, acts) =>
    answered(api.POST("/api/mouldings/acts", { ...inUnit(), body: { version, acts: acts as Edits } })),
  undo: (version) => answered(api.POST("/api/mouldings/undo", { ...inUnit(), body: { version } })),
  redo: (version) => answered(api.POST("/api/mouldings/redo", { ...inUnit(), body: { version } })),
  look: (acts) => answered(api.POST("/api/mouldings/look", { ...inUnit(), body: { acts: acts as Edits } })),
  merged: (_, looked) => looked,
};

export const framesQuery = () => ({
  queryKey: [...MOULDINGS, "frames", unitHere()],
  queryFn: () => fetched(api.GET("/api/mouldings/frames", inUnit())),
});
export const frameQuery = (content_id: string, moulding_id: string) => ({
  queryKey: [...MOULDINGS, "frames", unitHere(), content_id, moulding_id],
  queryFn: () =>
    fetched(
      api.GET("/api/mouldings/frames/{content_id}/{moulding_id}", {
        params: { path: { content_id, moulding_id }, query: { unit: unitHere() } },
      }),
    ),
});
export const makeFrame = (content_id: string, moulding_id: string) =>
  answered(
    api.POST("/api/mouldings/frames/{content_id}/{moulding_id}/project", {
      params: { path: { content_id, moulding_id }, query: { unit: unitHere() } },
      body: {},
    }),
  );
export const keepMouldingPhoto = (version: number, moulding: string, name: string, content: string) =>
  answered(api.POST("/api/mouldings/photos", { ...inUnit(), body: { version, moulding, name, content } }));

export const madeOfQuery = (project_id: string) => ({
  queryKey: projectKey(project_id, "made-of"),
  queryFn: () => fetched(api.GET("/api/projects/{project_id}/made-of", { params: { path: { project_id } } })),
});
