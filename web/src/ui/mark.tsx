/** The inks of the three grades. */
export const TONES = { stop: "caution", watch: "watch", note: "depth" } as const;

/** A grade, told apart by shape as well as by colour. */
export function Mark({ severity }: { severity: keyof typeof TONES }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
      {severity === "stop" ? <rect x="2" y="2" width="12" height="12" fill="var(--caution)" /> : null}
      {severity === "watch" ? <path d="M8 2 15 14H1Z" fill="none" stroke="var(--watch)" strokeWidth="1.8" /> : null}
      {severity === "note" ? (
        <circle cx="8" cy="8" r="5.5" fill="none" stroke="var(--depth)" strokeWidth="1.8" />
      ) : null}
    </svg>
  );
}
