import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { ContestedPair } from '@periwinkle/core/cascade/questions/rules-report';
import type { Component } from '@periwinkle/core/components/component';
import { useCaughtFocus } from '../common/focus';
import { countText } from '../common/numbers';
import { regionAddress } from '../component/region-address';
import { SettleDialog } from './settle-dialog';

/** Open contests, by pair of rules; each region is a link to a plate that shows it. */
export function ContestTable({
  component,
  pairs,
}: {
  component: Component;
  pairs: readonly ContestedPair[];
}) {
  const { systemId = '' } = useParams();
  const [settling, setSettling] = useState<ContestedPair | null>(null);
  // The button that settled a contest goes with it; whoever used the keyboard stays here.
  const table = useCaughtFocus<HTMLTableElement>(pairs);
  const open = pairs
    .map(pair => ({ ...pair, contests: pair.contests.filter(contest => contest.decision === null) }))
    .filter(pair => pair.contests.length > 0);
  return (
    <>
      <table ref={table} className="contests" aria-label="Contested" tabIndex={-1}>
        <thead>
          <tr>
            <th scope="col">property</th>
            <th scope="col">gives way</th>
            <th scope="col">has the last word</th>
            <th scope="col">where</th>
            <th scope="col" className="number">
              combinations
            </th>
          </tr>
        </thead>
        {open.map(pair => (
          <tbody key={`${pair.earlier} ${pair.later}`}>
            <tr className="group">
              <th colSpan={4} scope="rowgroup">
                <b>{pair.earlierWords}</b> gives way to <b>{pair.laterWords}</b>
                <small>
                  {pair.earlier} before {pair.later}
                </small>
              </th>
              <td className="number">
                <button type="button" className="act" onClick={() => setSettling(pair)}>
                  settle<span className="unseen"> {`${pair.earlier} and ${pair.later}`}</span>
                </button>
              </td>
            </tr>
            {pair.contests.map(contest => (
              <tr key={contest.slot}>
                <td className="mono">{contest.slot}</td>
                <td className="mono">
                  <s>{contest.earlierText}</s>
                </td>
                <td className="mono">{contest.laterText}</td>
                <td>
                  {contest.regions.map((region, index) => (
                    <span key={contest.words[index]}>
                      {index > 0 ? <span className="said"> or </span> : null}
                      <Link className="word" to={regionAddress(systemId, component, region, contest.slot)}>
                        {contest.words[index]}
                      </Link>
                    </span>
                  ))}
                </td>
                <td className="number">{countText(contest.combinations)}</td>
              </tr>
            ))}
          </tbody>
        ))}
      </table>
      {settling ? (
        <SettleDialog component={component} pair={settling} onClose={() => setSettling(null)} />
      ) : null}
    </>
  );
}
