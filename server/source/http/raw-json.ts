import { writeJson } from '@periwinkle/core/json/json-text';

/** JSON that is written already, as documents and patches are stored: it goes into answers as it is. */
export class RawJson {
  constructor(readonly text: string) {}
}

const textOf = (value: unknown): string => (value instanceof RawJson ? value.text : writeJson(value));

/** An object of which some members are written already. */
export const rawObject = (members: object): RawJson =>
  new RawJson(
    `{${Object.entries(members)
      .filter(([, value]) => value !== undefined)
      .map(([key, value]) => `${writeJson(key)}:${textOf(value)}`)
      .join(',')}}`,
  );

export const rawList = (values: readonly RawJson[]): RawJson =>
  new RawJson(`[${values.map(({ text }) => text).join(',')}]`);
