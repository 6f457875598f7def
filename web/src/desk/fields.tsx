import { Entry } from "../ui/row";
import { hoursText, lengthText, massText, smallAreaText, temperatureText } from "../units/display";
import { readQuantity } from "../units/entry";
import { type QuantityName, unitOf } from "../units/table";
import { useUnits } from "./units";

interface Field {
  label: string;
  value: number;
  take: (value: number) => void;
}

/** A quantity that can be typed in any form, shown in the person's own unit. */
function QuantityField(props: Field & { quantity: QuantityName; shown: string; round: number }) {
  const units = useUnits();
  const { quantity, round } = props;
  return (
    <Entry
      label={props.label}
      shown={props.shown}
      read={(text) => readQuantity(text, quantity, units)}
      take={(value) => {
        props.take(Math.round(value * round) / round);
      }}
      example={unitOf(quantity, units).example}
    />
  );
}

export function LengthField(field: Field) {
  const units = useUnits();
  return <QuantityField {...field} quantity="length" shown={lengthText(field.value, units, 1)} round={100} />;
}

export function TemperatureField(field: Field) {
  const units = useUnits();
  return <QuantityField {...field} quantity="temperature" shown={temperatureText(field.value, units, 1)} round={10} />;
}

export function MassField(field: Field) {
  const units = useUnits();
  return <QuantityField {...field} quantity="mass" shown={massText(field.value, units)} round={1000} />;
}

export function HoursField(field: Field) {
  return (
    <QuantityField {...field} quantity="hours" shown={field.value === 0 ? "0 h" : hoursText(field.value)} round={100} />
  );
}

export function SmallAreaField(field: Field) {
  const units = useUnits();
  return <QuantityField {...field} quantity="small_area" shown={smallAreaText(field.value, units)} round={10} />;
}

/** A bare number, or one with a unit that everybody reads alike. */
export function NumberField({ label, value, take, unit = "" }: Field & { unit?: string }) {
  const units = useUnits();
  const read = (text: string) => readQuantity(unit ? text.replace(unit, "").trim() : text, "plain", units);
  return (
    <Entry
      label={label}
      shown={`${value}${unit ? ` ${unit}` : ""}`}
      read={read}
      take={take}
      example={`12.5${unit ? ` ${unit}` : ""}`}
    />
  );
}
