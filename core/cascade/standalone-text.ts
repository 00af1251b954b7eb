import { readReference } from '../tokens/references';
import type { TokenSet } from '../tokens/token-set';
import { absentMember, compositeMembers, valueCss } from '../tokens/token-types';
import type { Setting } from '../components/component';
import { memberValue } from '../css/typed-value';
import type { System } from '../components/system';
import type { Value } from '../css/value-syntax';

/**
 * What a rule would write to say for one property what a setting says of it. That is the setting's own text, or, where a
 * composite token speaks for several properties, what the token holds for this one; `null` when no one text says it in every
 * context.
 */
export function ownText({ tokens }: System, { value, text }: Setting): string | null {
  if (value.kind !== 'member') return text;
  const texts = new Set(tokens.everyContext().map(set => memberText(set, value)));
  return texts.size === 1 ? [...texts][0]! : null;
}

type Share = Pick<Extract<Value, { kind: 'member' }>, 'key' | 'member'>;

function memberText(set: TokenSet, { key, member }: Share): string | null {
  const token = set.byKey.get(key);
  if (!token || !(member.key in compositeMembers(token.type))) return null;
  const whole = readReference(token.raw);
  if (whole?.kind === 'alias') return memberText(set, { key: whole.key, member });
  const raw = whole ? undefined : (token.raw as Readonly<Record<string, unknown>>)[member.key];
  if (readReference(raw)?.kind === 'alias') return String(raw);
  const share = memberValue(token, member);
  return share ? valueCss(share.type, share.value) : absentMember(token.type, member.key);
}
