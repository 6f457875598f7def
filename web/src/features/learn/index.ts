export { LearnColour, LearnResin } from "./learn";
