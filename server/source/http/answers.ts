import type { Response } from 'express';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { writeJson } from '@periwinkle/core/json/json-text';
import { documentPieces, PIECE_LETTERS, type DocumentText } from '../storage/document-texts';
import { rawObject, RawJson } from './raw-json';
import { UnderWay } from '../admission/unread-answers';

/** Texts of answers that readers have not taken yet, of all of them; readers of one system share its documents. */
const underWay = new UnderWay<{ readonly text: string | null }>(
  QUOTAS.lettersUnderWay,
  ({ text }) => text?.length ?? 0,
  2_000,
);

function held(response: Response, texts: readonly { readonly text: string | null }[]): void {
  // Whoever is gone by now takes nothing.
  if (response.closed) return;
  response.once(
    'close',
    underWay.hold(texts, () => response.destroy()),
  );
}

export function answerText(response: Response, type: string, text: string): void {
  held(response, [{ text }]);
  response.type(type).send(text);
}

/** Answers with a problem document (RFC 9457) that is written already. */
export const answerProblem = (response: Response, status: number, text: string): void =>
  answerText(response.status(status), 'application/problem+json', text);

/** Answers in JSON; what is written already goes out as it is. */
export const answer = (response: Response, value: unknown): void =>
  answerText(response, 'application/json', value instanceof RawJson ? value.text : writeJson(value));

/** Answers with a system, as fast as the reader takes it: no more is made of it than that. */
export async function answerWhole(
  response: Response,
  whole: object,
  documents: readonly DocumentText[],
): Promise<void> {
  held(response, documents);
  await answerInPieces(response, wholePieces(whole, documents));
}

function* wholePieces(whole: object, documents: readonly DocumentText[]): Generator<string> {
  yield `${rawObject(whole).text.slice(0, -1)},"documents":[`;
  for (const [index, document] of documents.entries()) {
    if (index > 0) yield ',';
    yield* documentPieces(document);
  }
  yield ']}';
}

function* joined(pieces: Iterable<string>): Generator<string> {
  let text = '';
  for (const piece of pieces) {
    text += piece;
    if (text.length < PIECE_LETTERS) continue;
    yield text;
    text = '';
  }
  yield text;
}

/** One that goes away has what it wanted. */
async function answerInPieces(response: Response, pieces: Iterable<string>): Promise<void> {
  response.type('application/json');
  await pipeline(Readable.from(joined(pieces), { highWaterMark: 1 }), response).catch(
    (error: NodeJS.ErrnoException) => {
      if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
    },
  );
}
