import { Box } from "@chakra-ui/react";
import { lazy, type ReactNode, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";

import { useSession } from "./desk/use-session";
import { Ended } from "./workspace/ended";
import { FirstPage } from "./workspace/first-page";

const AccountPage = lazy(() => import("./workspace/account-page"));
const BeginPage = lazy(() => import("./workspace/begin-page"));
const EntrancePage = lazy(() => import("./workspace/entrance-page"));
const HavePage = lazy(() => import("./workspace/have-page"));
const PlansPage = lazy(() => import("./workspace/plans-page"));
const PourSheet = lazy(() => import("./features/sheet"));
const RunPage = lazy(() => import("./workspace/run-page"));
const ShownPage = lazy(() => import("./workspace/shown-page"));
const WelcomePage = lazy(() => import("./workspace/welcome-page"));
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
        <Route path="/shown/:token" element={<ShownPage />} />
        <Route path="/welcome/:token" element={<WelcomePage />} />
        <Route
          path="*"
          element={
            <SignedIn>
              <Pages />
            </SignedIn>
          }
        />
      </Routes>
    </Suspense>
  );
}

/** Shows its pages to whoever is signed in, and the way in to everybody else; without a server, what is kept here. */
function SignedIn({ children }: { children: ReactNode }) {
  const known = useSession();
  if (!known) return null;
  if (known.session === null) return <EntrancePage />;
  return (
    <>
      <Ended session={known.session} />
      {children}
    </>
  );
}

function Pages() {
  return (
    <Routes>
      <Route path="/" element={<FirstPage />} />
      <Route path="/account" element={<AccountPage />} />
      <Route path="/begin" element={<BeginPage />} />
      <Route path="/have" element={<HavePage />} />
      <Route path="/scenes/:sceneId" element={<Navigate to="pours" replace />} />
      <Route path="/scenes/:sceneId/sheet" element={<PourSheet />} />
      <Route path="/scenes/:sceneId/plans" element={<PlansPage />} />
      <Route path="/scenes/:sceneId/:stage" element={<Workspace />} />
      <Route path="/runs/:runId" element={<RunPage />} />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}
