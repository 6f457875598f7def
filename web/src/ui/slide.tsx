interface Slid {
  label: string;
  /** of what lies over: 0 to 100 */
  value: number;
  take: (value: number) => void;
  width: number | string;
}

/** Goes from one picture to the other that is laid over it. */
export function Slide({ label, value, take, width }: Slid) {
  return (
    <input
      type="range"
      min={0}
      max={100}
      value={value}
      aria-label={label}
      style={{ width, accentColor: "var(--depth)" }}
      onChange={(event) => {
        take(Number(event.target.value));
      }}
    />
  );
}
