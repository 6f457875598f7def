export { RoundView as default } from "./round-view";
