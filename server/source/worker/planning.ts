import type { Patch } from '@periwinkle/core/patch/operations';
import type { Transaction } from '../storage/database';
import { computing } from './computing';
import { digestOf, stale, type EditRequest } from './edit-requests';
import { documentAt } from './parsed-documents';
import { patched, type Patched } from './patching';
import { followed } from './placing-edits';
import type { Unstored } from './unstored';
import { titleOf } from './writing';

/** What the parts of an edit make of their documents; nothing of it is checked. Throws `Refusal` where one of them has no place. */
export async function planOn(
  transaction: Transaction,
  request: EditRequest,
  state: Unstored,
): Promise<readonly Patched[]> {
  const { systemId, parts, isPlaced } = request;
  const current = parts.map(({ path }) => documentAt(state.documents, path));
  const outdated = parts.filter(({ revision }, index) => current[index]!.revision !== revision);
  const following = isPlaced
    ? await followed(transaction, systemId, outdated, state)
    : new Map<(typeof parts)[number], Patch>();
  if (outdated.some(part => !following.has(part)))
    throw await stale(transaction, systemId, outdated, state.documents);
  return computing(() =>
    parts.map((part, index) => {
      const placed = following.get(part);
      const done = patched(current[index]!, placed ?? part.patch);
      if (part.path === 'system.json') titleOf(done.document.body, systemId);
      return placed ? { ...done, sent: digestOf(part.patch) } : done;
    }),
  );
}
