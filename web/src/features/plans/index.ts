export { Plans } from "./plans";
