import { shortDecimal } from '../text/css-text';
import { tokenColorFromCss } from './color';
import { readReference } from './references';
import { TOKEN_TYPES, valueCss, valueFaults } from './token-types';

/** A token's value read from what a person typed, or what is wrong with it. */
export type TypedToken = { ok: true; value: unknown } | { ok: false; message: string; suggestion?: string };

const number = '[+-]?(?:\\d+\\.?\\d*|\\.\\d+)';

function measured(text: string, units: readonly string[]): unknown {
  const match = new RegExp(`^(${number})\\s*(${units.join('|')})$`, 'i').exec(text);
  return match ? { value: Number(match[1]), unit: match[2]!.toLowerCase() } : undefined;
}

/** How each type is typed; `undefined` when the text cannot be meant for it. Types without a row take JSON. */
const READERS: Readonly<Record<string, (text: string) => unknown>> = {
  color: text => tokenColorFromCss(text) ?? undefined,
  dimension: text => measured(text, ['px', 'rem']),
  duration: text => measured(text, ['ms', 's']),
  number: text => (new RegExp(`^${number}$`).test(text) ? Number(text) : undefined),
  fontWeight: text => (new RegExp(`^${number}$`).test(text) ? Number(text) : text),
  strokeStyle: text => text,
  fontFamily(text) {
    const names = text
      .split(',')
      .map(name => name.trim().replace(/^(["'])(.*)\1$/, '$2'))
      .filter(name => name !== '');
    return names.length === 0 ? undefined : names.length === 1 ? names[0] : names;
  },
  cubicBezier(text) {
    const parts = text
      .replace(/^cubic-bezier\((.*)\)$/, '$1')
      .split(',')
      .map(part => Number(part.trim()));
    return parts.length === 4 && parts.every(part => Number.isFinite(part)) ? parts : undefined;
  },
};

const EXAMPLES: Readonly<Record<string, string>> = {
  color: '#5957aa or oklch(0.55 0.15 280)',
  dimension: '12px or 0.75rem',
  duration: '150ms',
  number: '1.4',
  fontWeight: '600 or semi-bold',
  strokeStyle: 'dashed',
  fontFamily: 'Georgia, serif',
  cubicBezier: '0.2, 0, 0, 1',
};

/** Reads what a person typed as the value of a token: an alias in braces, the type's usual notation, or JSON. */
export function readTokenText(type: string, text: string): TypedToken {
  const typed = text.trim();
  if (/^\{[^{}]+\}$/.test(typed)) return { ok: true, value: typed };
  const reader = READERS[type];
  const value = reader && !/^[[{]/.test(typed) ? reader(typed) : asJson(typed);
  const example = EXAMPLES[type] ?? 'JSON as the tokens format has it';
  if (value === undefined)
    return {
      ok: false,
      message: `“${typed}” is no ${type}; write ${example}, or another token as {group.name}.`,
    };
  const [fault] = valueFaults(type, value);
  if (!fault) return { ok: true, value };
  const message = `This value ${fault.message}; write ${example}, or another token as {group.name}.`;
  return { ok: false, message, ...(fault.suggestion ? { suggestion: fault.suggestion } : {}) };
}

function asJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Writes a value as a person would type it; `readTokenText` reads it back. */
export function writeTokenText(type: string, raw: unknown): string {
  if (readReference(raw)?.kind === 'alias') return String(raw);
  if (type === 'color' && valueFaults(type, raw).length === 0) return valueCss(type, raw);
  if (type === 'cubicBezier' && Array.isArray(raw))
    return raw.map(part => shortDecimal(Number(part), 6)).join(', ');
  if (type === 'fontFamily') return [raw].flat().join(', ');
  const plain = type in READERS && type in TOKEN_TYPES && valueFaults(type, raw).length === 0;
  return plain && !containsObject(raw, type) ? valueCss(type, raw) : JSON.stringify(raw);
}

const containsObject = (raw: unknown, type: string): boolean =>
  typeof raw === 'object' && raw !== null && type !== 'dimension' && type !== 'duration';
