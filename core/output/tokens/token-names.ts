import type { System } from '../../components/system';
import { cssIdentifier } from '../../text/css-text';
import { ProblemList, type Problem } from '../../json/problem';
import { kebab } from '../../space/axis';
import { compositeMembers } from '../../tokens/token-types';

/** The custom property of a token, `--qs-color-frame-over`, from the system's prefix and the token's path. */
export function tokenProperty(prefix: string, path: string): string {
  return `--${cssIdentifier(`${prefix}-${path.replace(/[.\s]+/g, '-')}`)}`;
}

/** The custom property of a composite token's member: `--qs-border-field--width`. */
export const memberProperty = (prefix: string, path: string, member: string): string =>
  `${tokenProperty(prefix, path)}--${kebab(member)}`;

/** The public custom property of a component's parameter: `--qs-text-field-accent`. */
export const parameterProperty = (prefix: string, component: string, parameter: string): string =>
  `--${cssIdentifier(`${prefix}-${component}-${kebab(parameter)}`)}`;

/** Tokens that come to the same custom property, or one to that of another's member. */
export function tokenNameProblems({ tokens, prefix }: System): Problem[] {
  const owners = new Map<string, string>();
  const problems: Problem[] = [];
  const all = [...tokens.usual().byKey.values()];
  for (const { path, key, type } of all)
    for (const member of Object.keys(compositeMembers(type)))
      owners.set(memberProperty(prefix, path, member), `${key}’s ${member}`);
  for (const token of all) {
    const name = tokenProperty(prefix, token.path);
    const other = owners.get(name);
    if (other === undefined) {
      owners.set(name, token.key);
      continue;
    }
    const list = new ProblemList();
    list.error(
      token.origin.pointer,
      'name-collision',
      `${token.key} and ${other} would both be ${name} in CSS; rename one.`,
    );
    problems.push({ file: token.origin.file, ...list.problems[0]! });
  }
  return problems;
}
