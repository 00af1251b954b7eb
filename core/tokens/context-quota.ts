import { QUOTAS } from '../json/quotas';
import { ObjectMemo } from '../json/object-memo';
import type { Modifier, Layer } from './contexts';
import type { DeclaredGroup } from './token-tree';

interface Choices {
  readonly modifiers: readonly Modifier[];
  readonly layers: readonly Layer[];
}

/**
 * The contexts of modifiers as far as the tokens of all of them together are not too many: each is another value of every token. The usual one
 * of each modifier stays; `tell` is told of the first modifier that loses some.
 */
export function withinQuota(choices: Choices, tell: (modifier: string, message: string) => void): Choices {
  const { modifiers, layers } = choices;
  const always = sum(layers.map(({ modifier, trees }) => (modifier === null ? sum(countedIn(trees)) : 0)));
  const own = (modifier: string, context: string): number =>
    sum(layers.flatMap(layer => (layer.modifier === modifier ? tokensIn(layer.trees.get(context)!) : 0)));
  let tokens = 0;
  const left = modifiers.map(modifier => {
    const usual = modifier.default ?? modifier.contexts[0];
    const contexts = modifier.contexts.filter(context => {
      const more = always + own(modifier.name, context);
      if (context !== usual && tokens + more > QUOTAS.tokensInContexts) return false;
      tokens += more;
      return true;
    });
    return contexts.length === modifier.contexts.length ? modifier : { ...modifier, contexts };
  });
  const first = left.find((modifier, index) => modifier !== modifiers[index]);
  if (!first) return choices;
  tell(
    first.name,
    `The contexts of all modifiers can hold ${QUOTAS.tokensInContexts.toLocaleString('en')} tokens together, those that hold in each counted with each.`,
  );
  return { modifiers: left, layers };
}

const sum = (numbers: readonly number[]): number => numbers.reduce((all, each) => all + each, 0);

const countedIn = (trees: ReadonlyMap<string, DeclaredGroup>): number[] => [...trees.values()].map(tokensIn);

const counts = new ObjectMemo<number>();

/** How many tokens a tree holds. */
const tokensIn = (group: DeclaredGroup): number =>
  counts.of([group], () =>
    sum([...group.members.values()].map(member => (member.kind === 'group' ? tokensIn(member) : 1))),
  );
