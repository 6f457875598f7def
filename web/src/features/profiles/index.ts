export { Profiles, PROFILES_WIDTH, useReadings } from "./profiles";
export { ProfileTables } from "./tables";
