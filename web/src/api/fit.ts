import { answered, api, fetched } from "./call";
import { projectKey } from "./documents";
import type { Act, Fit, Offered } from "./types";
import type { DocumentApi } from "./useDocument";

type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];
const of = (project_id: string) => ({ params: { path: { project_id } } });

/** The dry fit: forecast, readings, as made, the order, passage. What is wished there is changed like any document; nothing is looked at before it is saved. */
export const fitApi = (id: string): DocumentApi<Fit, Fit> => {
  const read = () => fetched(api.GET("/api/projects/{project_id}/fit", of(id)));
  return {
    key: projectKey(id, "fit"),
    read,
    act: (version, acts) =>
      answered(
        api.POST("/api/projects/{project_id}/fit/acts", {
          ...of(id),
          body: { version, acts: acts as Edits },
        }),
      ),
    undo: (version) =>
      answered(api.POST("/api/projects/{project_id}/fit/undo", { ...of(id), body: { version } })),
    redo: (version) =>
      answered(api.POST("/api/projects/{project_id}/fit/redo", { ...of(id), body: { version } })),
    look: async () => ({ ok: true, data: await read() }),
    merged: (saved) => saved,
  };
};

const newId = () => crypto.randomUUID();

export type Side = "" | "face" | "back" | "upper" | "lower" | "even";

/** What tape, gauge or feeler read, as typed. */
export const readOff = (id: string, key: string, text: string, side: Side = "", inches_meant = false) =>
  answered(
    api.POST("/api/projects/{project_id}/fit/read", {
      ...of(id),
      body: { id: newId(), key, text, side, inches_meant },
    }),
  );
export const agree = (id: string, records: Offered[]) =>
  answered(api.POST("/api/projects/{project_id}/fit/agree", { ...of(id), body: { id: newId(), records } }));
export const takeBack = (id: string, record: string) =>
  answered(api.POST("/api/projects/{project_id}/fit/back", { ...of(id), body: { id: newId(), record } }));

/** One picture to read on; it hangs on all that the place hangs on. */
export const pictureQuery = (
  id: string,
  picture: string,
  how: { made: boolean; fans: boolean },
  stamp: unknown,
) => ({
  queryKey: projectKey(id, "fit-picture", picture, how.made, how.fans, stamp),
  queryFn: () =>
    fetched(
      api.GET("/api/projects/{project_id}/fit/picture", {
        params: { path: { project_id: id }, query: { id: picture, ...how } },
      }),
    ),
});

/** A step of putting it together, drawn. */
export const joiningQuery = (id: string, key: string, stamp: unknown) => ({
  queryKey: projectKey(id, "fit-step", key, stamp),
  queryFn: () =>
    fetched(
      api.GET("/api/projects/{project_id}/fit/step", {
        params: { path: { project_id: id }, query: { key } },
      }),
    ),
});
