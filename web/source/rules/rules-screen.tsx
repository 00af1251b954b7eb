import type { ReactNode } from 'react';
import type { RulesReport } from '@periwinkle/core/cascade/questions/rules-report';
import type { Component } from '@periwinkle/core/components/component';
import { countText, counted } from '../common/numbers';
import { sheetScreen } from '../component/sheet-screen';
import { useSystemPart } from '../data/system-context';
import { useAnswer, type Answer } from '../engine/use-answer';
import { AlikeList } from './alike-list';
import { ContestTable } from './contest-table';
import { DeadList } from './dead-list';
import { DecisionList } from './decision-list';

/** What the rules of a component come to: where only their order decides, which never matter, what makes no difference. */
export const RulesScreen = sheetScreen('system', RulesSheet);

function RulesSheet({ component }: { component: Component }) {
  const { documents } = useSystemPart('system');
  const answer = useAnswer('rules', { component: component.id }, documents);
  return (
    <div className="rules-sheet" aria-busy={!answer.upToDate && !answer.stopped}>
      <Waiting answer={answer} />
      {answer.value ? <Report component={component} report={answer.value} /> : null}
    </div>
  );
}

function Waiting({ answer }: { answer: Answer<RulesReport | null> }) {
  const { value, progress, failed, stopped, stop, again } = answer;
  if (failed) {
    return (
      <p className="fault" role="alert">
        This could not be worked out: {failed.message}
      </p>
    );
  }
  if (progress) {
    return (
      <p className="said" role="status">
        Looking at the rules: {countText(progress.done)} of {countText(progress.total)}{' '}
        <button type="button" className="act" onClick={stop}>
          stop
        </button>
      </p>
    );
  }
  if (stopped) {
    return (
      <p className="said" role="status">
        Stopped.{' '}
        {value ? 'This is how the rules were before the last edits.' : 'Nothing has been found out yet.'}{' '}
        <button type="button" className="act" onClick={again}>
          look again
        </button>
      </p>
    );
  }
  return value === undefined ? <p className="said">Looking at the rules …</p> : null;
}

function Report({ component, report }: { component: Component; report: RulesReport }) {
  const all = report.pairs.flatMap(pair => pair.contests);
  const open = all.filter(contest => contest.decision === null);
  const deadRules = report.dead.filter(each => each.property === null).length;
  return (
    <>
      <p className="summary">
        {counted(report.rules, 'rule')} for {counted(report.combinations, 'combination')}, which come to{' '}
        {report.looks.exact ? '' : 'more than '}
        {counted(report.looks.number, 'look')}. {openWords(open.length, all.length)} {deadWords(deadRules)}
      </p>
      <Section
        title="Contested"
        number={open.length}
        explained="Both rules speak, neither is the more special case, and nothing but their order decides."
        empty="Wherever two rules speak with different values, one of them is the more special case or a third decides."
      >
        <ContestTable component={component} pairs={report.pairs} />
      </Section>
      <Section
        title="Never the last word"
        number={report.dead.length}
        explained="What these say is never seen."
        empty="Every rule is seen somewhere, with everything it says."
      >
        <DeadList component={component} dead={report.dead} />
      </Section>
      <Section
        title="Decided"
        number={component.decisions.length}
        explained="Here the order is meant, for a reason."
        empty="No order has been recorded as meant."
      >
        <DecisionList component={component} />
      </Section>
      <Section
        title="No difference"
        number={report.alike.length}
        explained="These values look the same in every combination and every context."
        empty="Each value of each axis looks different from the others somewhere."
      >
        <AlikeList alike={report.alike} />
      </Section>
    </>
  );
}

function openWords(open: number, all: number): string {
  if (all === 0) return 'Nothing is contested.';
  if (open === 0)
    return all === 1 ? 'One contest, and it is decided.' : `All ${countText(all)} contests are decided.`;
  return `${counted(open, 'contest')} ${open === 1 ? 'is' : 'are'} open.`;
}

const deadWords = (dead: number): string =>
  dead === 0 ? 'No rule is idle.' : `${counted(dead, 'rule')} never ${dead === 1 ? 'matters' : 'matter'}.`;

function Section({
  title,
  number,
  explained,
  empty,
  children,
}: {
  title: string;
  number: number;
  explained: string;
  empty: string;
  children: ReactNode;
}) {
  return (
    <section aria-label={title}>
      <h2>
        {title} <small>{number === 0 ? empty : explained}</small>
      </h2>
      {number === 0 ? null : children}
    </section>
  );
}
