import "@fontsource/barlow/latin-400.css";
import "@fontsource/barlow/latin-500.css";
import "@fontsource/barlow/latin-600.css";
import "@fontsource/barlow-semi-condensed/latin-500.css";
import "@fontsource/barlow-semi-condensed/latin-600.css";
import "./styles.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes, useParams } from "react-router";
import { hearOtherWindows } from "./api/useDocument";
import { BenchPage } from "./bench/BenchPage";
import { BringInPage } from "./places/BringInPage";
import { BuyPage } from "./places/BuyPage";
import { ComparePage } from "./places/ComparePage";
import { CutListPage } from "./places/CutListPage";
import { DevicesPage } from "./places/DevicesPage";
import { MouldingsPage } from "./places/MouldingsPage";
import { PairPage } from "./places/PairPage";
import { PlanPage } from "./places/PlanPage";
import { PracticePage } from "./places/PracticePage";
import { ProjectPage } from "./places/ProjectPage";
import { ProjectsPage } from "./places/ProjectsPage";
import { RescalePage } from "./places/RescalePage";

const client = new QueryClient({ defaultOptions: { queries: { retry: false, refetchOnWindowFocus: true } } });

hearOtherWindows(client);

/** Another project is another page: what was touched and looked at belongs to the one before. */
function OneProject() {
  const { id } = useParams();
  return <ProjectPage key={id} />;
}

function OneBench() {
  const { id } = useParams();
  return <BenchPage key={id} />;
}

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <Routes>
          <Route path="/" element={<ProjectsPage />} />
          <Route path="/project/:id/compare/:other" element={<ComparePage />} />
          <Route path="/project/:id/rescale" element={<RescalePage />} />
          <Route path="/project/:id/cut-list" element={<CutListPage />} />
          <Route path="/project/:id/to-buy" element={<BuyPage />} />
          <Route path="/devices" element={<DevicesPage />} />
          <Route path="/plan" element={<PlanPage />} />
          <Route path="/mouldings" element={<MouldingsPage />} />
          <Route path="/bring-in" element={<BringInPage />} />
          <Route path="/practice" element={<PracticePage />} />
          <Route path="/pair" element={<PairPage />} />
          <Route path="/project/:id/bench" element={<OneBench />} />
          <Route path="/project/:id/:place?" element={<OneProject />} />
          <Route path="*" element={<ProjectsPage />} />
        </Routes>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
