import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Link, RouterProvider } from "react-router";
import { CodebookList } from "./pages/codebooks/CodebookList.tsx";
import { CodebookPage } from "./pages/codebooks/CodebookPage.tsx";
import { CheckPage } from "./pages/check/CheckPage.tsx";
import { EditSeries, NewSeries } from "./pages/editor/SeriesEditor.tsx";
import { AccountList } from "./pages/access/AccountList.tsx";
import { AccountPage } from "./pages/access/AccountPage.tsx";
import { OwnAccount } from "./pages/access/OwnAccount.tsx";
import { CalendarPage } from "./pages/life/CalendarPage.tsx";
import { ClosingList } from "./pages/life/ClosingList.tsx";
import { ClosingPage } from "./pages/life/ClosingPage.tsx";
import { RestorePage } from "./pages/restore/RestorePage.tsx";
import { LifePage } from "./pages/life/LifePage.tsx";
import { Home } from "./pages/overview/Home.tsx";
import { NewRecord } from "./pages/records/NewRecord.tsx";
import { RecordList } from "./pages/records/RecordList.tsx";
import { RecordPage } from "./pages/records/RecordPage.tsx";
import { TablePage } from "./pages/records/TablePage.tsx";
import { RouteGrid } from "./pages/routes/RouteGrid.tsx";
import { SeriesList } from "./pages/series/SeriesList.tsx";
import { SeriesPage } from "./pages/series/SeriesPage.tsx";
import { StarterPage } from "./pages/starters/StarterPage.tsx";
import { InspectPage } from "./pages/tables/InspectPage.tsx";
import { RepairPage } from "./pages/tables/RepairPage.tsx";
import { DocumentPage } from "./pages/documents/DocumentPage.tsx";
import { JobPage } from "./pages/labels/JobPage.tsx";
import { SimulatedPrinterPage } from "./pages/labels/SimulatedPrinterPage.tsx";
import { LabelPage } from "./pages/labels/LabelPage.tsx";
import { LayoutPage } from "./pages/labels/LayoutPage.tsx";
import { SessionGate } from "./parts/Session.tsx";
import { Shell } from "./parts/Shell.tsx";
import "./style.css";

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 2_000, refetchOnWindowFocus: false } },
});

const router = createBrowserRouter([
  {
    element: (
      <SessionGate>
        <Shell />
      </SessionGate>
    ),
    children: [
      { path: "/", element: <Home /> },
      { path: "/records", element: <RecordList /> },
      { path: "/records/new", element: <NewRecord /> },
      { path: "/records/table", element: <TablePage /> },
      { path: "/records/:record", element: <RecordPage /> },
      { path: "/tables", element: <InspectPage /> },
      { path: "/tables/repair", element: <RepairPage /> },
      { path: "/documents", element: <DocumentPage /> },
      { path: "/labels", element: <LabelPage /> },
      { path: "/labels/jobs/:job", element: <JobPage /> },
      { path: "/labels/simulated-printer", element: <SimulatedPrinterPage /> },
      { path: "/labels/layouts/:key", element: <LayoutPage /> },
      { path: "/series", element: <SeriesList /> },
      { path: "/new", element: <NewSeries /> },
      { path: "/series/:key", element: <SeriesPage /> },
      { path: "/series/:key/edit", element: <EditSeries /> },
      { path: "/life", element: <LifePage /> },
      { path: "/restore", element: <RestorePage /> },
      { path: "/calendar", element: <CalendarPage /> },
      { path: "/closings", element: <ClosingList /> },
      { path: "/closings/:closing", element: <ClosingPage /> },
      { path: "/codebooks", element: <CodebookList /> },
      { path: "/codebooks/:key", element: <CodebookPage /> },
      { path: "/routes", element: <RouteGrid /> },
      { path: "/accounts", element: <AccountList /> },
      { path: "/accounts/:name", element: <AccountPage /> },
      { path: "/account", element: <OwnAccount /> },
      { path: "/starters", element: <StarterPage /> },
      { path: "/check", element: <CheckPage /> },
      {
        path: "*",
        element: (
          <p className="p-4">
            Page not found.{" "}
            <Link className="link" to="/">
              Go to the overview
            </Link>
            .
          </p>
        ),
      },
    ],
  },
]);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
