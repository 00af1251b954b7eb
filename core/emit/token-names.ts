import { cssIdentifier } from '../formats/css-text';
import { ProblemList, type Problem } from '../formats/problem';
import type { System } from '../rules/system';
import { kebab } from '../space/axis';

/** The custom property of a token, `--qs-color-frame-over`, from the system's prefix and the token's path. */
export function tokenProperty(prefix: string, path: string): string {
  return `--${cssIdentifier(`${prefix}-${path.replace(/[.\s]+/g, '-')}`)}`;
}

/** The custom property of a composite token's member: `--qs-border-field--width`. */
export const memberProperty = (prefix: string, path: string, member: string): string =>
  `${tokenProperty(prefix, path)}--${kebab(member)}`;

/** Tokens whose paths differ but come to the same custom property. */
export function tokenNameProblems(system: System): Problem[] {
  const owners = new Map<string, string>();
  const problems: Problem[] = [];
  for (const token of system.tokens.usual().byKey.values()) {
    const name = tokenProperty(system.prefix, token.path);
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
