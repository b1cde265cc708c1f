import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { BrowserRouter, Link, Route, Routes } from "react-router";
import { folderBase } from "../api/folder";
import { LineUp } from "../features/lineup/LineUp";
import { Today } from "../features/today/Today";
import { PageSafe } from "../ui/PageSafe";
import { Waiting } from "../ui/State";
import { UndoMessages } from "../ui/Undo";
import { Shell } from "./Shell";

const Cut = lazy(() => import("../features/cut/Cut").then((m) => ({ default: m.Cut })));
const Shelf = lazy(() => import("../features/shelf/Shelf").then((m) => ({ default: m.Shelf })));
const BladePage = lazy(() =>
  import("../features/shelf/BladePage").then((m) => ({ default: m.BladePage })),
);
const Passport = lazy(() =>
  import("../features/shelf/Passport").then((m) => ({ default: m.Passport })),
);
const Prepare = lazy(() =>
  import("../features/prepare/Prepare").then((m) => ({ default: m.Prepare })),
);
const Reckoner = lazy(() =>
  import("../features/reckoner/Reckoner").then((m) => ({ default: m.Reckoner })),
);
const Devices = lazy(() =>
  import("../features/devices/Devices").then((m) => ({ default: m.Devices })),
);
const Assay = lazy(() => import("../features/assay/Assay").then((m) => ({ default: m.Assay })));
const BladeAssay = lazy(() =>
  import("../features/assay/BladeAssay").then((m) => ({ default: m.BladeAssay })),
);
const BatchSheet = lazy(() =>
  import("../features/assay/BatchSheet").then((m) => ({ default: m.BatchSheet })),
);
const SideBySide = lazy(() =>
  import("../features/assay/SideBySide").then((m) => ({ default: m.SideBySide })),
);
const Performance = lazy(() =>
  import("../features/assay/Performance").then((m) => ({ default: m.Performance })),
);
const Standing = lazy(() =>
  import("../features/assay/Standing").then((m) => ({ default: m.Standing })),
);
const GradePage = lazy(() =>
  import("../features/shelf/GradePage").then((m) => ({ default: m.GradePage })),
);
const GradesAlike = lazy(() =>
  import("../features/shelf/GradesAlike").then((m) => ({ default: m.GradesAlike })),
);
const Soaks = lazy(() => import("../features/soak/Soaks").then((m) => ({ default: m.Soaks })));
const SoakPage = lazy(() =>
  import("../features/soak/SoakPage").then((m) => ({ default: m.SoakPage })),
);
const BlindPage = lazy(() =>
  import("../features/soak/BlindPage").then((m) => ({ default: m.BlindPage })),
);
const LookPage = lazy(() =>
  import("../features/soak/LookPage").then((m) => ({ default: m.LookPage })),
);
const Paper = lazy(() => import("../features/record/Paper").then((m) => ({ default: m.Paper })));
const TrialRecord = lazy(() =>
  import("../features/record/TrialRecord").then((m) => ({ default: m.TrialRecord })),
);
const Bin = lazy(() => import("../features/record/Bin").then((m) => ({ default: m.Bin })));
const Backups = lazy(() =>
  import("../features/record/Backups").then((m) => ({ default: m.Backups })),
);
const Choose = lazy(() => import("../features/choice/Choose").then((m) => ({ default: m.Choose })));
const Share = lazy(() => import("../features/share/Share").then((m) => ({ default: m.Share })));
const Sheets = lazy(() => import("../features/sheets/Sheets").then((m) => ({ default: m.Sheets })));
const Standings = lazy(() =>
  import("../features/standings/Standings").then((m) => ({ default: m.Standings })),
);
const Plan = lazy(() => import("../features/plan/Plan").then((m) => ({ default: m.Plan })));
const MethodPage = lazy(() =>
  import("../features/method/MethodPage").then((m) => ({ default: m.MethodPage })),
);
const Gauge = lazy(() => import("../features/gauge/Gauge").then((m) => ({ default: m.Gauge })));
const Guide = lazy(() => import("../features/guide/Guide").then((m) => ({ default: m.Guide })));
const Trainers = lazy(() =>
  import("../features/trainers/Trainers").then((m) => ({ default: m.Trainers })),
);
const Session = lazy(() =>
  import("../features/trainers/Session").then((m) => ({ default: m.Session })),
);
const Ways = lazy(() => import("../features/ways/Ways").then((m) => ({ default: m.Ways })));
const Verdict = lazy(() =>
  import("../features/verdict/Verdict").then((m) => ({ default: m.Verdict })),
);

const client = new QueryClient({
  defaultOptions: {
    queries: { networkMode: "always", retry: 1, staleTime: 2000, refetchOnWindowFocus: true },
    mutations: { networkMode: "always" },
  },
});

export function App() {
  return (
    <QueryClientProvider client={client}>
      <BrowserRouter basename={folderBase}>
        <UndoMessages>
          <PageSafe>
            <Suspense fallback={<Waiting what="the page" />}>
              <Routes>
                <Route path="/runs/:runId" element={<Cut />} />
                <Route path="/blades/:bladeId/passport" element={<Passport />} />
                <Route element={<Shell />}>
                  <Route path="/" element={<Today />} />
                  <Route path="/trials/:trialId/line-up" element={<LineUp />} />
                  <Route path="/trials/:trialId/plan" element={<Plan />} />
                  <Route path="/trials/:trialId/method" element={<MethodPage />} />
                  <Route path="/trials/:trialId/verdict" element={<Verdict />} />
                  <Route path="/trials/:trialId/prepare" element={<Prepare />} />
                  <Route path="/trials/:trialId/paper" element={<Paper />} />
                  <Route path="/trials/:trialId/record" element={<TrialRecord />} />
                  <Route path="/sheets" element={<Sheets />} />
                  <Route path="/bin" element={<Bin />} />
                  <Route path="/backups" element={<Backups />} />
                  <Route path="/share" element={<Share />} />
                  <Route path="/gauge" element={<Gauge />} />
                  <Route path="/guide" element={<Guide />} />
                  <Route path="/guide/:slug" element={<Guide />} />
                  <Route path="/trainers" element={<Trainers />} />
                  <Route path="/trainers/:kind" element={<Session />} />
                  <Route path="/ways" element={<Ways />} />
                  <Route path="/choice" element={<Choose />} />
                  <Route path="/shelf" element={<Shelf />} />
                  <Route path="/blades/:bladeId" element={<BladePage />} />
                  <Route path="/assay" element={<Assay />} />
                  <Route path="/assay/blades/:bladeId" element={<BladeAssay />} />
                  <Route path="/assay/batches/:batchId/sheet" element={<BatchSheet />} />
                  <Route path="/assay/claims" element={<SideBySide />} />
                  <Route path="/assay/performance" element={<Performance />} />
                  <Route path="/assay/standing" element={<Standing />} />
                  <Route path="/soak" element={<Soaks />} />
                  <Route path="/soak/:soakId" element={<SoakPage />} />
                  <Route path="/soak/:soakId/look" element={<LookPage />} />
                  <Route path="/soak/:soakId/blind" element={<BlindPage />} />
                  <Route path="/standings" element={<Standings />} />
                  <Route path="/grades/:name" element={<GradePage />} />
                  <Route path="/grades-alike" element={<GradesAlike />} />
                  <Route path="/devices" element={<Devices />} />
                  <Route path="/reckoner" element={<Reckoner />} />
                  <Route path="*" element={<Nowhere />} />
                </Route>
              </Routes>
            </Suspense>
          </PageSafe>
        </UndoMessages>
      </BrowserRouter>
    </QueryClientProvider>
  );
}

function Nowhere() {
  return (
    <div className="px-7 py-10">
      <h1 className="answer">There is nothing at this address.</h1>
      <p className="mt-3">
        <Link className="font-semibold underline underline-offset-4" to="/">
          Go to Today
        </Link>
      </p>
    </div>
  );
}
