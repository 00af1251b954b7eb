import { useState } from 'react';
import { useParams } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import { SheetHead } from '../common/sheet-head';
import { counted } from '../common/numbers';
import { NoSuchField } from '../component/no-such-field';
import { useContexts } from '../data/address';
import { useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import { CheckList } from './check-list';
import { JudgingSentence } from './judging-sentence';
import { PassagePlate } from './passage-plate';
import { TryBehaviour } from './try-behaviour';
import { WalkthroughList } from './walkthrough-list';
import { WayStrip } from './way-strip';

const REST_MS = 300;

/** How a field comes into its states: judging, passages between situations, a field to try, walkthroughs. */
export function BehaviourScreen() {
  const { componentId = '' } = useParams();
  const system = useSystemPart('edited');
  const component = componentNamed(system, componentId);
  if (!component) return <NoSuchField id={componentId} />;
  return <Inside key={component.id} component={component} />;
}

function Inside({ component }: { component: Component }) {
  const system = useSystemPart('edited');
  const contexts = useContexts(system.tokens);
  const { value: table, upToDate, progress } = useAnswer(
    'passages',
    { component: component.id },
    system.documents,
    REST_MS,
  );
  const [chosen, choose] = useState<string | null>(null);
  const row = table?.rows.find(({ situation }) => situation === chosen) ?? null;
  const title = component.situations.find(({ id }) => id === chosen)?.title ?? '';
  const never = table?.rows.filter(({ way }) => way === null) ?? [];
  return (
    <>
      <SheetHead component={component} />
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
              {progress ? `${progress.done} of ${progress.total} situations walked to …` : 'walking through …'}
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
          {never.length > 0 ? (
            <section>
              <h2>
                Never comes about <small>{counted(never.length, 'situation')}</small>
              </h2>
              <ul className="lines">
                {never.map(({ situation, because }) => (
                  <li key={situation}>
                    <b>{component.situations.find(({ id }) => id === situation)?.title}</b>{' '}
                    <i className="said">{because}</i>
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
        </div>
      </div>
      {row?.way ? (
        <WayStrip system={system} component={component} contexts={contexts} acts={row.way} title={title} />
      ) : null}
      <WalkthroughList system={system} component={component} contexts={contexts} />
    </>
  );
}
