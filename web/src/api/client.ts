import createClient, { type Middleware } from "openapi-fetch";

import type { paths } from "./schema";

const forgery: Middleware = {
  onRequest({ request }) {
    const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1];
    if (token && request.method !== "GET") request.headers.set("X-CSRFToken", token);
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin });
api.use(forgery);
