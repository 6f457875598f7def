export { ExplainPart } from "./explain";
