import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { arrangementOf, type Arrangement } from '@periwinkle/core/plates/plate-grid';
import type { Component } from '@periwinkle/core/components/component';

/** A rectangle of cells, by row and column; a heading selects its whole slice. */
export interface Selection {
  readonly top: number;
  readonly left: number;
  readonly bottom: number;
  readonly right: number;
}

/** What of the component's screen stands in the address, so that a link or the back button returns to it. */
export interface PlateAddress {
  readonly plateId: string | null;
  readonly arrangement: Arrangement;
  readonly selection: Selection | null;
  /** Axes narrowed by hand: axis id to the value's id. */
  readonly narrowed: Readonly<Record<string, string>>;
  /** A region to be shown, whatever is selected. */
  readonly region: string | null;
}

const pairs = (text: string | null): Record<string, string> =>
  Object.fromEntries(
    (text ?? '')
      .split(',')
      .flatMap(pair => (pair.includes(':') ? [pair.split(':') as [string, string]] : [])),
  );
const written = (record: Readonly<Record<string, string>>): string =>
  Object.entries(record)
    .map(pair => pair.join(':'))
    .join(',');
const list = (text: string): string[] => text.split(',').filter(each => each !== '');

function readSelection(text: string | null): Selection | null {
  const match = /^r(\d+)c(\d+)-r(\d+)c(\d+)$/.exec(text ?? '');
  if (!match) return null;
  const [top, left, bottom, right] = match.slice(1).map(Number) as [number, number, number, number];
  return { top, left, bottom, right };
}

/** Reads the address; parameters that are absent come from the plate itself. */
export function usePlateAddress(component: Component): {
  address: PlateAddress;
  change: (
    parts: Partial<Omit<PlateAddress, 'arrangement'>> & { arrangement?: Partial<Arrangement> },
  ) => void;
} {
  const [parameters, setParameters] = useSearchParams();
  const text = parameters.toString();
  const plateId = parameters.get('plate');
  // The arrangement stays the same object while a selection changes, and with it the whole plate.
  const laidOut = ['across', 'down', 'hold', 'sample'].map(name => parameters.get(name) ?? '\n').join('\t');
  const arrangement = useMemo(() => {
    const [across, down, hold, sample] = laidOut.split('\t').map(each => (each === '\n' ? null : each)) as (
      string | null
    )[];
    const own = arrangementOf(component, plateId);
    return {
      across: across ? list(across) : across === '' ? [] : own.across,
      down: down ? list(down) : down === '' ? [] : own.down,
      hold: { ...own.hold, ...pairs(hold ?? null) },
      sample: sample ?? own.sample,
    };
  }, [laidOut, plateId, component]);
  const address = useMemo(() => {
    const read = new URLSearchParams(text);
    return {
      plateId,
      arrangement,
      selection: readSelection(read.get('sel')),
      narrowed: pairs(read.get('narrow')),
      region: read.get('region'),
    };
  }, [text, plateId, arrangement]);
  const change = useCallback<ReturnType<typeof usePlateAddress>['change']>(
    parts => {
      setParameters(
        before => {
          const next = new URLSearchParams(before);
          const set = (name: string, value: string | null | undefined): void => {
            if (value === undefined) return;
            if (value === null || value === '') next.delete(name);
            else next.set(name, value);
          };
          if (parts.plateId !== undefined) {
            ['across', 'down', 'hold', 'sample', 'sel', 'narrow', 'region'].forEach(name =>
              next.delete(name),
            );
            set('plate', parts.plateId);
          }
          const { across, down, hold, sample } = parts.arrangement ?? {};
          // An empty direction is said too: absent would mean the plate's own.
          if (across) next.set('across', across.join(','));
          if (down) next.set('down', down.join(','));
          if (hold) set('hold', written(hold));
          set('sample', sample);
          if (across || down) set('sel', null);
          if (parts.selection !== undefined) {
            next.delete('region');
            const s = parts.selection;
            set('sel', s && `r${s.top}c${s.left}-r${s.bottom}c${s.right}`);
          }
          if (parts.narrowed) set('narrow', written(parts.narrowed));
          return next;
        },
        { replace: true },
      );
    },
    [setParameters],
  );
  return { address, change };
}
