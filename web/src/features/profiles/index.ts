export { GAP, HeatTable, PANEL, Profiles, PROFILES_WIDTH, useReadings } from "./profiles";
