import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useNavigate, useParams } from "react-router";
import { api, fetched } from "../api/call";
import { LIST, projectKey } from "../api/documents";
import { PageHead } from "../ui/PageHead";
import { Compared, Differences } from "./Compared";

/** Two projects side by side, or one before and after its last change: drawn over each other, and what differs. */
export function ComparePage() {
  const { id = "", other = "" } = useParams();
  const navigate = useNavigate();
  const query = useQuery({
    queryKey: projectKey(id, "compare", other),
    queryFn: () =>
      fetched(
        api.GET("/api/projects/{project_id}/compare/{other}", {
          params: { path: { project_id: id, other } },
        }),
      ),
    refetchOnMount: "always",
  });
  const list = useQuery({
    queryKey: LIST,
    queryFn: () => fetched(api.GET("/api/projects")),
  });
  const both = query.data;
  useEffect(() => {
    document.title = both ? `${both.sides.map((s) => s.name).join(" and ")} compared` : "Compare";
  }, [both]);
  if (query.isError) return <p className="p-6">{query.error.message}</p>;
  if (!both) return <p className="p-6">Comparing…</p>;

  const projects = list.data?.projects ?? [];
  const kind = projects.find((p) => p.id === id)?.kind;
  const others = projects.filter((p) => p.id !== id && p.kind === kind);
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <PageHead project={id}>
        <label className="ml-auto flex items-center gap-2">
          Beside it
          <select
            className="min-h-10 max-w-64 border border-ink bg-paper px-2"
            value={other}
            onChange={(event) => navigate(`/project/${id}/compare/${event.target.value}`, { replace: true })}
          >
            <option value="before">itself, before the last change</option>
            {others.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
      </PageHead>
      <div className="flex min-h-0 flex-1 max-lg:flex-col">
        <Compared both={both} title={both.sides.map((side) => side.name).join(" and ")} />
        <aside
          className="w-full border-l border-line bg-paper p-5 lg:w-[480px] lg:overflow-y-auto"
          aria-label="What differs"
        >
          <h2 className="text-[20px]">What differs</h2>
          <Differences both={both} none="Nothing: they are alike." />
        </aside>
      </div>
    </div>
  );
}
