export { Account } from "./account";
export { SignIn, Welcome } from "./entrance";
export { SeenBy } from "./seen-by";
export { ShownPiece } from "./shown";
