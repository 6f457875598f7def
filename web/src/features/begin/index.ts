export { BeginPiece } from "./begin";
export { WhatYouHave } from "./have";
