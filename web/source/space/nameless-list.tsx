import { useState } from 'react';
import { Link } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { addEntry } from '@periwinkle/core/edits/entry-edits';
import type { SpaceReport } from '@periwinkle/core/cascade/questions/space-report';
import type { Box } from '@periwinkle/core/space/box';
import { conditionWords, writeCondition } from '@periwinkle/core/space/condition';
import { countText } from '../common/numbers';
import { regionAddress } from '../component/region-address';
import { useOpened } from '../data/opened-address';
import { useStore } from '../data/system-context';
import { CommitField } from '../making/commit-field';
import { idFor } from '../making/name-fields';
import { useRestructure } from '../making/use-restructure';

/** What has no name yet, as few plates; each can be given one. */
export function NamelessList({ component, report }: { component: Component; report: SpaceReport }) {
  const { id: systemId } = useStore();
  const [naming, setNaming] = useState<string | null>(null);
  const [, open] = useOpened();
  const restructure = useRestructure();
  const give = (region: Box, title: string): string | null => {
    if (title.trim() === '') return null;
    const id = idFor(title, each => component.situations.some(situation => situation.id === each));
    const when = writeCondition(region, component.space.axes);
    const reason = restructure(
      addEntry(component.id, 'situations', { id, title: title.trim(), when, means: '' }),
      `${component.title}: situation ${title.trim()}`,
    );
    if (reason === null) {
      setNaming(null);
      open(`situation:${id}`);
    }
    return reason;
  };
  return (
    <section id="nameless" tabIndex={-1}>
      <h2>
        Without a name <small>each leads to a plate of just those</small>
      </h2>
      <ul className="lines">
        {report.nameless.map(({ region, combinations }) => {
          const key = region.join();
          return (
            <li key={key}>
              <div className="limit-line">
                <span>
                  <Link to={regionAddress(systemId, component, region, '')}>
                    {conditionWords(region, component.space.axes)}
                  </Link>{' '}
                  {naming === key ? null : (
                    <button
                      type="button"
                      className="act"
                      aria-label={`name ${conditionWords(region, component.space.axes)}`}
                      onClick={() => setNaming(key)}
                    >
                      name it
                    </button>
                  )}
                </span>
                <span className="number">{countText(combinations)}</span>
              </div>
              {naming === key ? (
                <CommitField
                  label="situation"
                  value=""
                  placeholder="what it is called"
                  autoFocus
                  onCommit={title => give(region, title)}
                />
              ) : null}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
