/** What a door of the server said: wrong input (kept here), or no answer at all. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}
export class Offline extends Error {}

async function call<T>(method: string, path: string, body?: BodyInit, type?: string): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api/v1/${path}`, {
      method,
      ...(body === undefined ? {} : { body }),
      ...(type ? { headers: { "content-type": type } } : {}),
    });
  } catch {
    throw new Offline("No connection to the shop's server. What you typed is kept here and goes out when it is back");
  }
  const answer = (await response.json().catch(() => ({}))) as { error?: { message: string } };
  if (!response.ok) throw new Refused(answer.error?.message ?? `The server answered ${response.status}`, response.status);
  return answer as T;
}

export const getJson = <T>(path: string) => call<T>("GET", path);
export const sendJson = <T>(method: "POST" | "PUT" | "DELETE", path: string, body: unknown = {}) =>
  call<T>(method, path, JSON.stringify(body), "application/json");
export const sendBytes = <T>(path: string, bytes: Blob) => call<T>("POST", path, bytes, "application/octet-stream");
export const sendText = <T>(path: string, text: string) => call<T>("POST", path, text, "application/json");
