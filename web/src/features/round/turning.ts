/** Where the eye stands about the piece: turned and lifted in degrees, so many sizes away. */
export interface Eye {
  turn_deg: number;
  lift_deg: number;
  away: number;
}

export const FIRST: Eye = { turn_deg: 24, lift_deg: 22, away: 2.1 };

export function moved(eye: Eye, turn: number, lift: number, closer = 1): Eye {
  return {
    turn_deg: ((((eye.turn_deg + turn + 180) % 360) + 360) % 360) - 180,
    lift_deg: Math.min(88, Math.max(-30, eye.lift_deg + lift)),
    away: Math.min(5, Math.max(0.9, eye.away * closer)),
  };
}

export function keyed(eye: Eye, key: string): Eye | null {
  const step = { ArrowLeft: [-10, 0], ArrowRight: [10, 0], ArrowUp: [0, 8], ArrowDown: [0, -8] }[key];
  if (step) return moved(eye, step[0] ?? 0, step[1] ?? 0);
  if (key === "+" || key === "=") return moved(eye, 0, 0, 0.88);
  if (key === "-") return moved(eye, 0, 0, 1.14);
  return key === "Home" ? FIRST : null;
}

/** Place of the eye about the middle of the piece, y up, the glass towards +z. */
export function eyeAt(eye: Eye, size: number): [number, number, number] {
  const turn = (eye.turn_deg * Math.PI) / 180;
  const lift = (eye.lift_deg * Math.PI) / 180;
  const away = eye.away * size;
  return [away * Math.sin(turn) * Math.cos(lift), away * Math.sin(lift), away * Math.cos(turn) * Math.cos(lift)];
}
