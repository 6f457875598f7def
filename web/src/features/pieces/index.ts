export { NextHour } from "./next-hour";
export { Piece } from "./piece";
export { type Glances, useGlances } from "./glances";
