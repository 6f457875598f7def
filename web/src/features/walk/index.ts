export { Walk } from "./walk";
