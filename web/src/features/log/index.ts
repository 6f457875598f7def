export { Faults } from "./faults";
export { Lessons, Search } from "./lessons";
export { Revisions } from "./revisions";
export { Story } from "./story";
