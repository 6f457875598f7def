import type { Refusal } from "./types";

/** What the server said it could not do, as a sentence. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

export function refused(error: unknown, status: number): Refused {
  const told = error as Partial<Refusal> | undefined;
  const message = typeof told?.message === "string" ? told.message : "The server did not answer as it should.";
  return new Refused(message, status);
}
