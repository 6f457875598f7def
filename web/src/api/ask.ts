import { refused } from "./refusal";

/** Waits for an answer of the API; what is refused is thrown as its sentence. */
export async function ask<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await answer;
  // done, and nothing to tell, is an answer too
  if (data !== undefined || response.status === 204) return data as T;
  throw refused(error, response.status);
}
