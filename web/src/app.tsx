import { Navigate, Route, Routes } from "react-router";

import { SceneList } from "./features/scenes";
import { PourSheet } from "./features/sheet";
import { Workspace } from "./features/workspace";

export function App() {
  return (
    <Routes>
      <Route path="/" element={<SceneList />} />
      <Route path="/scenes/:sceneId" element={<Navigate to="pours" replace />} />
      <Route path="/scenes/:sceneId/sheet" element={<PourSheet />} />
      <Route path="/scenes/:sceneId/:stage" element={<Workspace />} />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}
