export { Cup } from "./cup";
export { FromSheet } from "./from-sheet";
export { HeatLayer } from "./heat-layer";
export { PlacePlot } from "./place-plot";
export { Stager } from "./stager";
export { WhyHot } from "./why-hot";
export { Weighing } from "./weighing";
