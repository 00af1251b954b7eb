import { changeJudging } from '@periwinkle/core/edits/behaviour-edits';
import type { Component } from '@periwinkle/core/components/component';
import type { JudgingDocument } from '@periwinkle/core/documents/behaviour-document';
import { Choice } from '../common/choice';
import { useStore } from '../data/system-context';
import { useRestructure } from '../making/use-restructure';

const COMPLAIN = [
  { id: 'leaving', words: 'after leaving', hint: 'the usual moment: nobody is interrupted' },
  { id: 'sending', words: 'on sending' },
  { id: 'typing', words: 'while typing', hint: 'interrupts whoever has not finished' },
] as const;
const FORGIVE = [
  { id: 'typing', words: 'while typing', hint: 'the usual moment: what is mended is seen at once' },
  { id: 'leaving', words: 'after leaving' },
  { id: 'sending', words: 'on sending' },
] as const;
const APPROVE = [
  { id: 'yes', words: 'approves' },
  { id: 'no', words: 'says nothing of' },
] as const;

/** When a field complains, forgives and approves, as a sentence whose words open. */
export function JudgingSentence({ component }: { component: Component }) {
  const restructure = useRestructure();
  const store = useStore();
  const {
    complain = 'leaving',
    forgive = 'typing',
    approve = false,
  } = component.document.behaviour?.judging ?? {};
  const change = (next: JudgingDocument): void => {
    const reason = restructure(changeJudging(component.id, next), `${component.title}: judging`);
    if (reason !== null) store.say('error', reason);
  };
  const words = (items: readonly { readonly id: string; readonly words: string }[], id: string): string =>
    items.find(each => each.id === id)!.words;
  return (
    <p className="judging">
      It complains{' '}
      <Choice
        label="complains"
        value={complain}
        items={COMPLAIN}
        onChoose={id => change({ complain: id as NonNullable<JudgingDocument['complain']> })}
      >
        {words(COMPLAIN, complain)}
      </Choice>
      , forgives{' '}
      <Choice
        label="forgives"
        value={forgive}
        items={FORGIVE}
        onChoose={id => change({ forgive: id as NonNullable<JudgingDocument['forgive']> })}
      >
        {words(FORGIVE, forgive)}
      </Choice>
      , and{' '}
      <Choice
        label="approves"
        value={approve ? 'yes' : 'no'}
        items={APPROVE}
        onChoose={id => change({ approve: id === 'yes' })}
      >
        {words(APPROVE, approve ? 'yes' : 'no')}
      </Choice>{' '}
      what is right.
    </p>
  );
}
