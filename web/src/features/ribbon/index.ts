export { Ribbon } from "./ribbon";
