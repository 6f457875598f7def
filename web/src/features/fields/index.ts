export { HoursField, LengthField, NumberField, TemperatureField } from "./fields";
export { optionsOf, useShelf } from "./shelf";
