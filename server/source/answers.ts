import type { Response } from 'express';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { writeJson } from '@periwinkle/core/formats/json-text';
import { documentJson, type DocumentText } from './document-texts';
import { rawObject, RawJson } from './raw-json';

/** Answers in JSON; what is written already goes out as it is. */
export const answer = (response: Response, value: unknown): void =>
  void response.type('application/json').send(value instanceof RawJson ? value.text : writeJson(value));

/** A system in pieces, of which no more are made than a reader takes. */
export function* wholePieces(whole: object, documents: readonly DocumentText[]): Generator<string> {
  yield `${rawObject(whole).text.slice(0, -1)},"documents":[`;
  for (const [index, document] of documents.entries())
    yield `${index === 0 ? '' : ','}${documentJson(document).text}`;
  yield ']}';
}

/** Letters that go out at once. */
const PIECE_LETTERS = 100_000;

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

/** Answers as fast as the reader takes it; one that goes away has what it wanted. */
export async function answerInPieces(response: Response, pieces: Iterable<string>): Promise<void> {
  response.type('application/json');
  await pipeline(Readable.from(joined(pieces)), response).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  });
}
