import { parseJson } from '@periwinkle/core/formats/json-text';

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

/** Asks a server, and again a moment later where it says that it has not begun: nothing can be done twice by that. Rejects where none answers. */
export async function asked(url: string, init: RequestInit): Promise<Answered> {
  for (let time = 1; ; time++) {
    const response = await fetch(url, init);
    const { ok, status, statusText } = response;
    const text = await response.text();
    if (status !== 503 || time === TIMES || !isBusy(text)) return { ok, status, statusText, text };
    const seconds = Number(response.headers.get('Retry-After')) || WAIT_S;
    await new Promise(resolve => setTimeout(resolve, seconds * 1000));
  }
}

function isBusy(text: string): boolean {
  try {
    return (parseJson(text) as { type?: unknown }).type === 'urn:periwinkle:problem:busy';
  } catch {
    return false;
  }
}
