import { Box } from "@chakra-ui/react";
import { lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";

import { FirstPage } from "./workspace/first-page";

const BeginPage = lazy(() => import("./workspace/begin-page"));
const HavePage = lazy(() => import("./workspace/have-page"));
const PlansPage = lazy(() => import("./workspace/plans-page"));
const PourSheet = lazy(() => import("./features/sheet"));
const RunPage = lazy(() => import("./workspace/run-page"));
const Workspace = lazy(() => import("./workspace/workspace"));

export function App() {
  return (
    <Suspense
      fallback={
        <Box padding="12" color="soft">
          Unrolling the sheet ...
        </Box>
      }
    >
      <Routes>
        <Route path="/" element={<FirstPage />} />
        <Route path="/begin" element={<BeginPage />} />
        <Route path="/have" element={<HavePage />} />
        <Route path="/scenes/:sceneId" element={<Navigate to="pours" replace />} />
        <Route path="/scenes/:sceneId/sheet" element={<PourSheet />} />
        <Route path="/scenes/:sceneId/plans" element={<PlansPage />} />
        <Route path="/scenes/:sceneId/:stage" element={<Workspace />} />
        <Route path="/runs/:runId" element={<RunPage />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
    </Suspense>
  );
}
