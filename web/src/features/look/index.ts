export { LookView as default } from "./look-view";
