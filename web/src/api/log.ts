import { answered, api, fetched } from "./call";
import { projectKey } from "./documents";
import type { Act, Log } from "./types";
import type { DocumentApi } from "./useDocument";

type Edits = Exclude<Act, { op: "fit" } | { op: "rescale" }>[];
const of = (project_id: string) => ({ params: { path: { project_id } } });
const made = () => crypto.randomUUID();

/** What happened, hours, lessons, cost, and what goes out. */
export const logApi = (id: string): DocumentApi<Log, Log> => {
  const read = () => fetched(api.GET("/api/projects/{project_id}/log", of(id)));
  return {
    key: projectKey(id, "log"),
    read,
    act: (version, acts) =>
      answered(
        api.POST("/api/projects/{project_id}/log/acts", {
          ...of(id),
          body: { version, acts: acts as Edits },
        }),
      ),
    undo: (version) =>
      answered(api.POST("/api/projects/{project_id}/log/undo", { ...of(id), body: { version } })),
    redo: (version) =>
      answered(api.POST("/api/projects/{project_id}/log/redo", { ...of(id), body: { version } })),
    look: async () => ({ ok: true, data: await read() }),
    merged: (saved) => saved,
  };
};

export type LogType = "note" | "clock" | "batch" | "use" | "reminded" | "undone";

export const writeLog = (id: string, type: LogType, body: Record<string, unknown>) =>
  answered(
    api.POST("/api/projects/{project_id}/log/records", { ...of(id), body: { id: made(), type, body } }),
  );
export const sayHours = (id: string, said: { text: string; of?: string; step?: string; day?: string }) =>
  answered(
    api.POST("/api/projects/{project_id}/log/hours", {
      ...of(id),
      body: { id: made(), of: "", step: "", day: "", ...said },
    }),
  );
export const keepPhoto = (id: string, name: string, content: string, text: string) =>
  answered(
    api.POST("/api/projects/{project_id}/log/photos", {
      ...of(id),
      body: { id: made(), name, content, text },
    }),
  );

export const againQuery = (id: string, stamp: unknown) => ({
  queryKey: projectKey(id, "again", stamp),
  queryFn: () => fetched(api.GET("/api/projects/{project_id}/again", of(id))),
});
export const buildAgain = (
  id: string,
  asked: { name: string; wood: string; away: string[]; orders: number },
) => answered(api.POST("/api/projects/{project_id}/again", { ...of(id), body: asked }));
export const chooseBeside = (id: string, version: number, other: string, value: boolean) =>
  answered(
    api.POST("/api/projects/{project_id}/boards/acts", {
      ...of(id),
      body: { version, acts: [{ op: "choose", path: `beside.${other}`, value }] },
    }),
  );
