import { counted } from '../common/numbers';
import { useSystemPart } from '../data/system-context';
import type { PendingEdit } from '../synchronisation/working-copy';

const MOST_NAMED = 4;

/** Whether all is stored; what waits otherwise, and why. */
export function StoringState() {
  const storing = useSystemPart('storing');
  const pending = useSystemPart('pending');
  const trouble = useSystemPart('trouble');
  const keeps = useSystemPart('keeps');
  if (storing === 'stored')
    return (
      <span className="storing holds" role="status" title="Everything is stored">
        stored
      </span>
    );
  const names = pending.slice(0, MOST_NAMED).map(named).join('; ');
  const more = pending.length > MOST_NAMED ? `; and ${pending.length - MOST_NAMED} more` : '';
  const waits = `On its way: ${names}${more}.`;
  if (storing === 'storing')
    return (
      <span className="storing" role="status" title={waits}>
        {pending.some(({ step }) => step) ? wordsOfStep(pending) : 'storing …'}
      </span>
    );
  const kept = keeps
    ? 'It is tried again, and nothing is lost.'
    : 'It is tried again. This browser keeps nothing: what is not stored is lost when this window is closed.';
  return (
    <span className="storing fails" role="status" title={`${trouble ?? ''} ${kept} ${waits}`.trim()}>
      {counted(pending.length, 'edit')} not stored{keeps ? '' : ', nor kept'}
    </span>
  );
}

const wordsOfStep = (pending: readonly PendingEdit[]): string =>
  pending.find(({ step }) => step)!.step!.direction === 'undo' ? 'taking back …' : 'bringing back …';

const named = ({ label, step }: PendingEdit): string => {
  if (!step) return label;
  return `${step.direction === 'undo' ? 'taking back' : 'bringing back'} ${label}`;
};
