import createClient, { type Middleware } from "openapi-fetch";

import { tellEnded } from "./ended";
import type { paths } from "./schema";
import type { Units } from "./types";

const forgery: Middleware = {
  onRequest({ request }) {
    const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1];
    if (token && request.method !== "GET") request.headers.set("X-CSRFToken", token);
    return request;
  },
};

let readerUnits = "";

/** Tells the server in which units refusals are to be said. */
export function readIn(units: Units): void {
  readerUnits = [units.length ?? "mm", units.temperature ?? "c", units.volume ?? "ml", units.mass ?? "g"].join(",");
}

const reading: Middleware = {
  onRequest({ request }) {
    if (readerUnits) request.headers.set("Gondola-Units", readerUnits);
    return request;
  },
};

/** Asking who is signed in, or signing in, is answered so without a session having ended. */
const ending: Middleware = {
  onResponse({ request, response }) {
    if (response.status === 401 && new URL(request.url).pathname !== "/api/session") tellEnded();
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin, fetch: (request) => fetch(request) });
api.use(forgery, reading, ending);
