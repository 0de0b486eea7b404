import createClient from "openapi-fetch";

import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export const api = createClient<paths>({ baseUrl: "" });

/** What went wrong with a request, in words for the user. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly place = "",
    readonly status = 0,
  ) {
    super(message);
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** Send a file as it is. */
export async function putFile<T>(path: string, file: File): Promise<T> {
  const asked = async () => {
    const response = await fetch(path, {
      method: "PUT",
      body: file,
      headers: {
        "Content-Type": "application/octet-stream",
        "X-Name": encodeURIComponent(file.name).replaceAll("%20", " "),
      },
    });
    const data = (await response.json()) as T;
    return response.ok ? { data, response } : { error: data, response };
  };
  return take<T>(asked());
}

/** The data of an answer, or `Refused` with what the server said. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Refused("Zarabanda does not answer. It is being started again; try once more in a second.");
  }
  if (answer.data !== undefined && answer.response.ok) return answer.data;
  const fault = answer.error as { message?: string; place?: string } | undefined;
  throw new Refused(
    fault?.message ?? `Zarabanda answered with error ${answer.response.status}.`,
    fault?.place,
    answer.response.status,
  );
}
