export { HeatTable, Profiles, PROFILES_WIDTH, useReadings } from "./profiles";
