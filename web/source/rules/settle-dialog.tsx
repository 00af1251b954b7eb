import { useState } from 'react';
import { entryProblem } from '@periwinkle/core/checks/check-entry';
import type { ContestedPair, ReportedContest } from '@periwinkle/core/cascade/questions/rules-report';
import type { Component } from '@periwinkle/core/components/component';
import { commonRulesPatch, decisionPatch } from '@periwinkle/core/edits/decide-contest';
import type { Box } from '@periwinkle/core/space/box';
import { FormDialog } from '../common/dialog';
import { useStore, useSystemPart } from '../data/system-context';

type Way = 'order' | 'rule';

/** Settles what two rules contest: the order is recorded as meant, or a rule of its own says what holds where both do. */
export function SettleDialog({
  component,
  pair,
  onClose,
}: {
  component: Component;
  pair: ContestedPair;
  onClose: () => void;
}) {
  const store = useStore();
  const edited = useSystemPart('edited');
  const [way, setWay] = useState<Way>('order');
  const [because, setBecause] = useState('');
  const [values, setValues] = useState<ReadonlyMap<string, string>>(
    new Map(pair.contests.map(contest => [contest.slot, contest.laterOwn ?? ''])),
  );
  const [fault, setFault] = useState<string | null>(null);
  const path = edited.fileOf.get(component.id)!;
  const places = contestedPlaces(pair);

  const settle = (): void => {
    const found = way === 'order' ? orderFault(because) : valueFault();
    setFault(found);
    if (found !== null) return;
    const { earlier, later } = pair;
    if (way === 'order') {
      const patch = decisionPatch(component, { rules: [earlier, later], because: because.trim() });
      store.edit(path, patch, `${component.title}: ${later} is meant to come after ${earlier}`);
    } else {
      const rules = places.flatMap(({ contests, regions }) =>
        regions.map(region => ({
          region,
          values: contests.map(({ slot, part, property }) => ({ part, property, text: values.get(slot)! })),
        })),
      );
      store.edit(
        path,
        commonRulesPatch(component, later, rules),
        `${component.title}: a rule for ${places[0]!.words}`,
      );
    }
    onClose();
  };

  const valueFault = (): string | null => {
    for (const { slot, part, property } of pair.contests) {
      const text = values.get(slot) ?? '';
      const problem = entryProblem(component, edited.tokens.usual(), part, property, text);
      if (problem) return `${slot}: ${problem.message}`;
    }
    return null;
  };

  return (
    <FormDialog
      title={`${pair.earlierWords} and ${pair.laterWords}`}
      act={way === 'order' ? 'Record it' : 'Make the rule'}
      isWide
      className="settle"
      fault={fault}
      onAct={settle}
      onClose={onClose}
    >
      <fieldset>
        <legend className="unseen">How to settle it</legend>
        <label>
          <input
            type="radio"
            name="way"
            autoFocus
            checked={way === 'order'}
            onChange={() => setWay('order')}
          />
          The order is meant: <b>{pair.laterWords}</b> has the last word
        </label>
        <label>
          <input type="radio" name="way" checked={way === 'rule'} onChange={() => setWay('rule')} />
          Where both hold, a rule of its own
        </label>
      </fieldset>
      {way === 'order' ? (
        <label className="reason">
          because
          <textarea
            className="form-control"
            rows={2}
            value={because}
            placeholder="A mistake must be seen wherever the pointer is."
            onChange={event => setBecause(event.target.value)}
          />
        </label>
      ) : (
        <>
          {places.map(({ words, contests }) => (
            <div key={words} className="values">
              <p>
                When <b>{words}</b>
              </p>
              {contests.map(contest => (
                <CommonValue
                  key={contest.slot}
                  contest={contest}
                  value={values.get(contest.slot) ?? ''}
                  onChange={text => {
                    setValues(before => new Map(before).set(contest.slot, text));
                    setFault(null);
                  }}
                />
              ))}
            </div>
          ))}
        </>
      )}
    </FormDialog>
  );
}

function CommonValue({
  contest,
  value,
  onChange,
}: {
  contest: ReportedContest;
  value: string;
  onChange: (text: string) => void;
}) {
  const id = `value-${contest.slot}`;
  const other = value === contest.laterOwn ? contest.earlierOwn : contest.laterOwn;
  return (
    <>
      <label htmlFor={id} className="mono">
        {contest.slot}
      </label>
      <input
        id={id}
        className="form-control mono"
        spellCheck={false}
        value={value}
        onChange={event => onChange(event.target.value)}
      />
      {other === null ? (
        <span />
      ) : (
        <button type="button" className="act" onClick={() => onChange(other)}>
          take {other}
        </button>
      )}
    </>
  );
}

interface ContestedPlace {
  readonly words: string;
  readonly regions: readonly Box[];
  readonly contests: readonly ReportedContest[];
}

/** What is contested, by where: properties that are contested in the same regions belong in the same rule. */
function contestedPlaces(pair: ContestedPair): ContestedPlace[] {
  const places = new Map<string, ContestedPlace & { contests: ReportedContest[] }>();
  for (const contest of pair.contests) {
    const words = contest.words.join('; or ');
    const known = places.get(words);
    if (known) known.contests.push(contest);
    else places.set(words, { words, regions: contest.regions, contests: [contest] });
  }
  return [...places.values()];
}

const orderFault = (because: string): string | null =>
  because.trim() === '' ? 'Say why, for those who come after you.' : null;
