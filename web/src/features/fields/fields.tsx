import { Entry } from "../../ui/row";
import { hoursText, lengthText, temperatureText } from "../../units/display";
import { parse } from "../../units/entry";
import { useDesk } from "../workspace";

interface Field {
  label: string;
  value: number;
  take: (value: number) => void;
}

export function LengthField({ label, value, take }: Field) {
  const { units } = useDesk();
  return (
    <Entry label={label} shown={lengthText(value, units, 1)} read={(text) => parse(text, "length", units)} take={(mm) => { take(Math.round(mm * 100) / 100); }} example={units.length === "in" ? "2 1/2 in" : "65 mm"} />
  );
}

export function TemperatureField({ label, value, take }: Field) {
  const { units } = useDesk();
  return (
    <Entry label={label} shown={temperatureText(value, units, 1)} read={(text) => parse(text, "temperature", units)} take={(c) => { take(Math.round(c * 10) / 10); }} example={units.temperature === "f" ? "75 F" : "23 C"} />
  );
}

export function HoursField({ label, value, take }: Field) {
  return <Entry label={label} shown={value === 0 ? "0 h" : hoursText(value)} read={(text) => parse(text, "hours", {})} take={take} example="30 h or 1 d 6 h" />;
}

export function NumberField({ label, value, take, unit = "" }: Field & { unit?: string }) {
  const read = (text: string) => parse(unit ? text.replace(unit, "") : text, "plain", {});
  return <Entry label={label} shown={`${value}${unit ? ` ${unit}` : ""}`} read={read} take={take} example={`12.5${unit ? ` ${unit}` : ""}`} />;
}
