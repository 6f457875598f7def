import { refused } from "./refusal";

/** Waits for an answer of the API; what is refused is thrown as its sentence. */
export async function ask<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await answer;
  if (data !== undefined) return data;
  throw refused(error, response.status);
}
