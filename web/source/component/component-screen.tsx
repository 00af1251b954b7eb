import { useEffect, useMemo, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { sampleNamed, type Cell, type PlateGrid } from '@periwinkle/core/cascade/plates/plate-grid';
import { reachedCells, scopeOf } from '@periwinkle/core/cascade/plates/scope';
import type { Component } from '@periwinkle/core/components/component';
import { componentNamed } from '@periwinkle/core/components/system';
import type { Box } from '@periwinkle/core/space/box';
import { countText } from '../common/numbers';
import { SheetHead } from '../common/sheet-head';
import { usePageKeys } from '../common/shortcuts';
import { useContexts } from '../data/address';
import { useSystemPart } from '../data/system-context';
import { useShape } from '../specimen/specimen';
import { ArrangementStrip } from './arrangement-strip';
import { LedgerDrawer } from './ledger-drawer';
import { Plate } from './plate';
import { PlateCaption } from './plate-caption';
import { readRegion } from './region-address';
import { selectedBy, selectionOn, usePlateAddress, type Selection } from './plate-address';
import { NoSuchField } from './no-such-field';
import { TryField } from './try-field';
import { usePlateGrid } from './use-plate-grid';

/** A component: its plate, and the ledger of what is selected on it. */
export function ComponentScreen() {
  const { componentId = '' } = useParams();
  const system = useSystemPart('system');
  const component = componentNamed(system, componentId);
  if (!component) return <NoSuchField id={componentId} />;
  return <Inside key={component.id} component={component} />;
}

function Inside({ component }: { component: Component }) {
  const system = useSystemPart('system');
  const contexts = useContexts(system.tokens);
  const shape = useShape(system, component);
  // What rules say does not decide which plates there are.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const plated = useMemo(() => component, [shape, component.document.plates]);
  const { address, change } = usePlateAddress(plated);
  const { arrangement } = address;
  const { grid, waiting } = usePlateGrid(component, shape, arrangement);
  const [aimed, setAimed] = useState<Box | null>(null);
  // While it is drawn, a selection is the window's own.
  const [drawn, setDrawn] = useState<Selection | null>(null);
  const inAddress = useMemo(() => selectionOn(grid, address.selected), [grid, address.selected]);
  const selection = drawn ?? inAddress;
  const select = (next: Selection | null): void => {
    setDrawn(null);
    setAimed(null);
    change({ selected: next && selectedBy(grid, next), narrowed: {} });
  };
  const asked = useMemo(
    () => (selection ? null : readRegion(component, address.region)),
    [component, selection, address.region],
  );
  const selected = useMemo(
    () => (asked ? reachedCells(grid, asked) : selectedCells(grid, selection)),
    [grid, asked, selection],
  );
  const narrowed = useMemo(
    () => new Map([...(asked ?? []).entries(), ...narrowedMasks(component, address.narrowed)]),
    [component, asked, address.narrowed],
  );
  const scope = useMemo(
    () => scopeOf(component, grid, selected, narrowed, arrangement.hold),
    [component, grid, selected, narrowed, arrangement.hold],
  );
  const region = aimed ?? scope?.region ?? null;
  const reached = useMemo(
    () => new Set(region ? reachedCells(grid, region).map(cell => `${cell.row}.${cell.column}`) : []),
    [grid, region],
  );
  usePageKeys({
    Escape: () => {
      const isAbove = document.querySelector('[role="dialog"], .dropdown-menu.show') !== null;
      if (isAbove || (!selection && address.region === null)) return false;
      return select(null);
    },
  });
  const drawer = useRef<HTMLElement>(null);
  const plate = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (address.region === null) return;
    window.scrollTo(0, 0);
    plate.current?.querySelector('.cell.reached')?.scrollIntoView({ block: 'nearest' });
    const property = new URLSearchParams(location.search).get('property') ?? '';
    drawer.current
      ?.querySelector(`[data-property="${CSS.escape(property)}"]`)
      ?.scrollIntoView({ block: 'center' });
    // Only the link that led here scrolls.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const plates = component.plates;
  const place = Math.max(
    0,
    plates.findIndex(each => each.id === address.plateId),
  );
  const shown = grid.cells.flat().filter(cell => cell.never === null).length;
  return (
    <>
      <SheetHead component={component}>
        <TryField system={system} component={component} contexts={contexts} />
      </SheetHead>
      <ArrangementStrip component={component} address={address} change={change} />
      <div ref={plate}>
        <Plate
          system={system}
          shape={shape}
          grid={grid}
          contexts={contexts}
          sample={sampleNamed(shape.component, arrangement.sample)}
          selection={selection}
          reached={reached}
          onDraw={setDrawn}
          onSelect={select}
          onEdit={() => focusScope(drawer.current)}
        />
      </div>
      {waiting}
      <div className="caption">
        {address.region === null ? (
          <span>
            <PlateCaption component={component} place={place} onRenamed={plateId => change({ plateId })} />
          </span>
        ) : (
          <span>
            <b>A region among its neighbours.</b> What lies in it is tinted.
          </span>
        )}
        <span>
          {grid.leftOff.length > 0 ? (
            <>
              Left off, since a plate holds no more: <b>{grid.leftOff.join(', ')}</b>.{' '}
            </>
          ) : null}
          {countText(shown)} shown of {countText(component.space.count())} combinations
        </span>
      </div>
      <LedgerDrawer
        ref={drawer}
        component={component}
        contexts={contexts}
        scope={scope}
        aimed={aimed}
        selected={selected}
        onPlate={reached.size}
        narrowed={address.narrowed}
        onNarrow={next => change({ narrowed: next })}
        onAim={setAimed}
        onLeave={() => plate.current?.querySelector<HTMLElement>('[role="grid"] [tabindex="0"]')?.focus()}
      />
    </>
  );
}

/** Goes to what the scope's rule says already, or to the top of its column. */
function focusScope(drawer: HTMLElement | null): void {
  const entries = [...(drawer?.querySelectorAll<HTMLElement>('.entry[data-scope]') ?? [])];
  (entries.find(entry => entry.textContent !== '') ?? entries[0])?.focus();
}

function selectedCells(grid: PlateGrid, selection: Selection | null): Cell[] {
  if (!selection) return [];
  return grid.cells
    .slice(selection.top, selection.bottom + 1)
    .flatMap(row => row.slice(selection.left, selection.right + 1))
    .filter(cell => cell.never === null);
}

/** Narrowing in the address as masks by axis; `*` frees an axis. */
function narrowedMasks(
  component: Component,
  narrowed: Readonly<Record<string, string>>,
): Map<number, number> {
  const { space } = component;
  const masks = new Map<number, number>();
  for (const [id, value] of Object.entries(narrowed)) {
    const index = space.axisIndex(id);
    const axis = space.axes[index];
    const place = axis?.values.findIndex(each => each.id === value) ?? -1;
    if (!axis) continue;
    if (value === '*') masks.set(index, space.full[index]!);
    else if (place >= 0) masks.set(index, axis.ladder ? (space.full[index]! >> place) << place : 1 << place);
  }
  return masks;
}
