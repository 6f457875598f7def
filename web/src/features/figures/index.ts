export { FiguresInspector } from "./figures-inspector";
