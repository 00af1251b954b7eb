import type { Documents } from '@periwinkle/core/documents/document-kinds';
import { QUOTAS } from '@periwinkle/core/json/quotas';
import { checkSystem } from '@periwinkle/core/checks/check-system';

export type Place = readonly (string | number)[];
export type Open = Record<string | number, unknown>;

export const isOpen = (node: unknown): node is Open => typeof node === 'object' && node !== null;

export const many = <Value>(length: number, make: (index: number) => Value): Value[] =>
  Array.from({ length }, (_, index) => make(index));

/** What stands at a place of a document. */
export const valueAt = (document: unknown, place: Place): unknown =>
  place.reduce<unknown>((here, step) => (here as Open)[step], document);

/** The document with another value at a place. */
export function replaced(node: unknown, [step, ...inner]: Place, value: unknown): unknown {
  if (step === undefined) return value;
  const copy = (Array.isArray(node) ? [...node] : { ...(node as Open) }) as Open;
  copy[step] = replaced(copy[step], inner, value);
  return copy;
}

/** Places of what a document holds, those that differ in indices alone once. */
export function* placesIn(
  node: unknown,
  isWanted: (node: unknown) => boolean,
  place: Place = [],
  seen = new Set<string>(),
): Generator<Place> {
  const shape = place.map(step => (typeof step === 'number' ? '#' : step)).join('/');
  if (isWanted(node) && !seen.has(shape)) yield place;
  seen.add(shape);
  if (!isOpen(node)) return;
  for (const [key, each] of Object.entries(node))
    yield* placesIn(each, isWanted, [...place, Array.isArray(node) ? Number(key) : key], seen);
}

/** How many of the slowest are told. */
const TOLD = 15;

/** Checks systems of which something is extreme, and tells the slowest checks, and those that end with an exception. */
export class SlowChecks {
  private readonly checked: { ms: number; line: string }[] = [];
  private thrown = 0;

  constructor(demo: Documents) {
    // What has run twice runs faster.
    for (let turn = 0; turn < 2; turn++) checkSystem(structuredClone(demo));
  }

  /** Nothing that no server takes is checked. `what` says what is extreme. */
  check(what: string, documents: Documents, letters: number): void {
    if (letters > QUOTAS.unpackedBytes) return;
    const began = performance.now();
    let end = '';
    try {
      const { problems } = checkSystem(documents);
      const [first] = problems.filter(({ severity }) => severity === 'error');
      end = `${problems.length} problems${first ? `, such as ${first.code}` : ''}`;
    } catch (error) {
      this.thrown++;
      end = `exception: ${String(error).slice(0, 100)}`;
    }
    const ms = performance.now() - began;
    this.checked.push({ ms, line: `${what}, ${letters.toLocaleString('en')} letters: ${end}` });
  }

  tell(): void {
    process.stdout.write(`${this.checked.length} systems, ${this.thrown} exceptions; the slowest:\n`);
    for (const { ms, line } of this.checked.toSorted((a, b) => b.ms - a.ms).slice(0, TOLD))
      process.stdout.write(`${ms.toFixed(0).padStart(6)} ms  ${line}\n`);
  }
}
