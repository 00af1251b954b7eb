import { useState } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import type { SpaceReport } from '@periwinkle/core/cascade/questions/space-report';
import { sheetScreen } from '../component/sheet-screen';
import { counted, countText } from '../common/numbers';
import { useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import { AxisList } from './axis-list';
import { LimitList } from './limit-list';
import { NamelessList } from './nameless-list';
import { isWide, PairsPicture } from './pairs-picture';
import { SituationList } from './situation-list';

const REST_MS = 120;

/** The space of a component: in what it differs, what can never be, what has a name. */
export const SpaceScreen = sheetScreen('edited', SpaceSheet);

function SpaceSheet({ component }: { component: Component }) {
  const { documents } = useSystemPart('edited');
  const { value, upToDate } = useAnswer('space', { component: component.id }, documents, REST_MS);
  // An answer speaks of the space as it was asked about: regions of it mean nothing in another.
  const [told, setTold] = useState<{ readonly report: SpaceReport; readonly of: Component } | null>(null);
  if (value && upToDate && told?.report !== value) setTold({ report: value, of: component });
  const report = told?.report ?? null;
  const nameless = report ? report.allowed - report.named : 0n;
  return (
    <>
      <p className="space-sentence" aria-busy={!upToDate}>
        <b>{counted(component.space.axes.length, 'way')} to differ</b>
        {report ? (
          <>
            {' '}
            make {countText(report.raw)} combinations, of which <b>{countText(report.allowed)}</b> can occur
            and {counted(component.situations.length, 'situation')} name {countText(report.named)}.{' '}
            {nameless > 0n ? (
              <a className="nameless" href="#nameless">
                {countText(nameless)} have no name.
              </a>
            ) : (
              'All have a name.'
            )}
          </>
        ) : (
          ' …'
        )}
      </p>
      <div className={isWide(component) ? 'space-sheet below' : 'space-sheet'}>
        <div>
          <AxisList component={component} />
          <LimitList component={component} report={upToDate ? report : null} />
          <SituationList component={component} report={upToDate ? report : null} />
          {told && nameless > 0n ? <NamelessList component={told.of} report={told.report} /> : null}
        </div>
        <div>{told ? <PairsPicture component={told.of} pairs={told.report.pairs} /> : null}</div>
      </div>
    </>
  );
}
