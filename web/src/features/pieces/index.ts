export { NextHour } from "./next-hour";
export { Piece } from "./piece";
export { useGlances } from "./glances";
