import { useMemo, type ReactNode } from 'react';
import type { Component } from '@periwinkle/core/components/component';
import {
  cellCount,
  plateGrid,
  type Arrangement,
  type PlateGrid,
} from '@periwinkle/core/cascade/plates/plate-grid';
import { countText } from '../common/numbers';
import { useSystemPart } from '../data/system-context';
import { useAnswer } from '../engine/use-answer';
import type { Shape } from '../specimen/specimen';

/** Plates of so many cells are laid out on the spot, within a frame; larger ones by the worker. */
const AT_ONCE = 800;

const NOTHING_YET: PlateGrid = { columns: [], rows: [], cells: [], leftOff: [] };

/** A plate laid out, and what is to be said while it is not there yet. */
export function usePlateGrid(
  component: Component,
  shape: Shape,
  arrangement: Arrangement,
): { grid: PlateGrid; waiting: ReactNode } {
  const system = useSystemPart('system');
  // Situations may change without the shape changing; rules and tokens leave the grid as it is.
  const { situations } = component.document;
  const large = useMemo(
    () => cellCount(component, arrangement) > AT_ONCE,
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above: the shape and the situations decide
    [shape, situations, arrangement],
  );
  const laidOutFrom = useMemo(
    () => system.documents,
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above: an edited rule does not ask the worker again
    [shape, situations],
  );
  const answer = useAnswer('plate', large ? { component: component.id, arrangement } : null, laidOutFrom);
  const small = useMemo(
    () => (large ? null : plateGrid(component, arrangement)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- see above
    [large, shape, situations, arrangement],
  );
  const { value, upToDate, progress, failed, stopped, stop, again } = answer;
  const waiting = failed ? (
    <span className="fault" role="alert">
      This plate could not be laid out: {failed.message}
    </span>
  ) : progress ? (
    <span className="said" role="status">
      Laying out the plate: row {countText(progress.done)} of {countText(progress.total)}{' '}
      <button type="button" className="act" onClick={stop}>
        stop
      </button>
    </span>
  ) : stopped ? (
    <span className="said" role="status">
      Stopped: this plate is not laid out.{' '}
      <button type="button" className="act" onClick={again}>
        lay it out
      </button>
    </span>
  ) : null;
  // Cells of a former shape may name options that are no more.
  return { grid: small ?? (upToDate ? value : null) ?? NOTHING_YET, waiting: large ? waiting : null };
}
