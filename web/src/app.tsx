import { Navigate, Route, Routes } from "react-router";

import { PourSheet } from "./features/sheet";
import { SceneList } from "./workspace/scene-list";
import { Workspace } from "./workspace/workspace";

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
