import { parseJson } from '@periwinkle/core/json/json-text';

/** What a server has answered. */
export interface Answered {
  readonly ok: boolean;
  readonly status: number;
  readonly statusText: string;
  readonly text: string;
}

/** So often it is asked again where the server had too much to do to begin with it. */
const TIMES = 8;
const WAIT_S = 1;
/**
 * ms after which nothing more is expected of a line, so that one that died is not waited for: until an answer begins, with as long again as the
 * slowest line takes for what is sent; and until it has come.
 */
const BEGINS_MS = 60_000;
const LETTERS_PER_MS = 10;
const ENDS_MS = 300_000;

/**
 * Asks a server, and again a moment later where it says that it has not begun: nothing can be done twice by that. Rejects where none answers, or not
 * in time.
 */
export async function asked(url: string, init: RequestInit): Promise<Answered> {
  for (let time = 1; ; time++) {
    const { response, text } = await once(url, init);
    const { ok, status, statusText } = response;
    if (status !== 503 || time === TIMES || !isBusy(text)) return { ok, status, statusText, text };
    const seconds = Number(response.headers.get('Retry-After')) || WAIT_S;
    await new Promise(resolve => setTimeout(resolve, seconds * 1000));
  }
}

async function once(url: string, init: RequestInit): Promise<{ response: Response; text: string }> {
  const ending = new AbortController();
  const end = (): void => ending.abort();
  const letters = typeof init.body === 'string' ? init.body.length : 0;
  let timer = setTimeout(end, BEGINS_MS + letters / LETTERS_PER_MS);
  try {
    const response = await fetch(url, { ...init, signal: ending.signal });
    clearTimeout(timer);
    timer = setTimeout(end, ENDS_MS);
    return { response, text: await response.text() };
  } finally {
    clearTimeout(timer);
  }
}

function isBusy(text: string): boolean {
  try {
    return (parseJson(text) as { type?: unknown }).type === 'urn:periwinkle:problem:busy';
  } catch {
    return false;
  }
}
