export { Inspector } from "./inspector";
