import { answered, api } from "./call";
import type { FileIn } from "./types";

export const lookAtFile = (body: FileIn) => answered(api.POST("/api/bring-in/look", { body }));
export const bringIn = (body: FileIn) => answered(api.POST("/api/bring-in", { body }));

const of = (project_id: string) => ({ params: { path: { project_id } } });
export const lookAtReadings = (id: string, text: string) =>
  answered(api.POST("/api/projects/{project_id}/fit/list/look", { ...of(id), body: { text } }));
export const bringReadings = (id: string, lines: { key: string; value: string }[]) =>
  answered(
    api.POST("/api/projects/{project_id}/fit/list", { ...of(id), body: { id: crypto.randomUUID(), lines } }),
  );

export const readPlan = (start: string, unit: "mm" | "in", text: string) =>
  answered(api.POST("/api/plan-check/read", { body: { start, unit, text } }));
export const checkPlan = (start: string, unit: "mm" | "in", lines: { key: string; value: string }[]) =>
  answered(api.POST("/api/plan-check", { body: { start, unit, lines } }));
