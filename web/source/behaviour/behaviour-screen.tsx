import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { TransitionRow } from '@periwinkle/core/behaviour/transitions';
import type { Component } from '@periwinkle/core/components/component';
import { conditionWords } from '@periwinkle/core/space/condition';
import type { Combination } from '@periwinkle/core/space/space';
import { componentNamed } from '@periwinkle/core/components/system';
import { sheetScreen } from '../component/sheet-screen';
import { counted } from '../common/numbers';
import { useContexts } from '../data/address';
import { SHOWN, shownIn } from '../data/shown-address';
import { useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import { CheckList } from './check-list';
import { JudgingSentence } from './judging-sentence';
import { MotionPanel } from './motion-panel';
import { PassagePlate } from './passage-plate';
import { TryBehaviour } from './try-behaviour';
import { WalkthroughList } from './walkthrough-list';
import { WayStrip } from './way-strip';

const REST_MS = 300;

/** How a field comes into its states: judging, passages between situations, a field to try, walkthroughs. */
export const BehaviourScreen = sheetScreen('edited', BehaviourSheet);

function BehaviourSheet({ component }: { component: Component }) {
  const system = useSystemPart('edited');
  const shownSystem = useSystemPart('system');
  const contexts = useContexts(system.tokens);
  const {
    value: table,
    upToDate,
    progress,
  } = useAnswer('passages', { component: component.id }, system.documents, REST_MS);
  const [parameters] = useSearchParams();
  const shown = parameters.get(SHOWN);
  const wanted = shown === null ? null : shownIn(component, shown);
  const { value: way } = useAnswer(
    'way',
    wanted && { component: component.id, combination: wanted },
    system.documents,
    REST_MS,
  );
  const [chosen, choose] = useState<string | null>(null);
  const row = table?.rows.find(({ situation }) => situation === chosen) ?? null;
  const title = component.situations.find(({ id }) => id === chosen)?.title ?? '';
  const unfound = table?.rows.filter(({ way }) => way === null) ?? [];
  return (
    <>
      <div className="behaviour-sheet">
        <section className="passages" aria-busy={!upToDate}>
          {table ? (
            <PassagePlate
              system={system}
              component={component}
              contexts={contexts}
              table={table}
              chosen={chosen}
              onChoose={choose}
            />
          ) : (
            <p className="said">
              {progress
                ? `${progress.done} of ${progress.total} situations walked to …`
                : 'walking through …'}
            </p>
          )}
        </section>
        <div className="behaviour-side">
          <section>
            <h2>Judging</h2>
            <JudgingSentence component={component} />
            <CheckList component={component} />
          </section>
          <section>
            <h2>
              Try it <small>what you do is noted</small>
            </h2>
            <TryBehaviour key={component.id} system={system} component={component} contexts={contexts} />
          </section>
          <Unfound
            component={component}
            title="Never comes about"
            rows={unfound.filter(({ isNever }) => isNever)}
          />
          <Unfound
            component={component}
            title="Not known whether it comes about"
            rows={unfound.filter(({ isNever }) => !isNever)}
          />
        </div>
      </div>
      {wanted && way && !row ? (
        way.reachable === true ? (
          <WayStrip
            system={system}
            component={component}
            contexts={contexts}
            acts={way.acts}
            title={wordsOf(component, wanted)}
          />
        ) : (
          <section className="walkthrough getting">
            <h2>
              {way.reachable === false
                ? `“${wordsOf(component, wanted)}” never comes about`
                : `Not known whether “${wordsOf(component, wanted)}” comes about`}{' '}
              <small>{way.because}</small>
            </h2>
          </section>
        )
      ) : null}
      {row?.way ? (
        <WayStrip system={system} component={component} contexts={contexts} acts={row.way} title={title} />
      ) : null}
      {component.situations.length > 1 ? (
        <MotionPanel
          system={shownSystem}
          edited={system}
          component={componentNamed(shownSystem, component.id) ?? component}
          contexts={contexts}
        />
      ) : null}
      <WalkthroughList system={system} component={component} contexts={contexts} />
    </>
  );
}

/** What of a combination is not at rest, in words. */
function wordsOf({ space }: Component, combination: Combination): string {
  const region = space.axes.map(axis => {
    const value = axis.indexOf.get(combination[axis.id]!)!;
    return value === axis.rest ? 2 ** axis.values.length - 1 : 1 << value;
  });
  return conditionWords(region, space.axes);
}

/** Situations into which no way was found, and why. */
function Unfound({
  component,
  title,
  rows,
}: {
  readonly component: Component;
  readonly title: string;
  readonly rows: readonly TransitionRow[];
}) {
  if (rows.length === 0) return null;
  return (
    <section>
      <h2>
        {title} <small>{counted(rows.length, 'situation')}</small>
      </h2>
      <ul className="lines">
        {rows.map(({ situation, because }) => (
          <li key={situation}>
            <b>{component.situations.find(({ id }) => id === situation)?.title}</b>{' '}
            <i className="said">{because}</i>
          </li>
        ))}
      </ul>
    </section>
  );
}
