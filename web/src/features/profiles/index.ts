export type { ProfileSet } from "./profile-part";
export { Profiles, PROFILES_WIDTH } from "./profiles";
export { ProfileTables } from "./tables";
