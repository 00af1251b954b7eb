import { nanoid } from 'nanoid';
import { useCallback, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import { entryProblem } from '@periwinkle/core/checks/check-entry';
import { contrast } from '@periwinkle/core/css/contrast';
import { surfaceBehind } from '@periwinkle/core/cascade/surface-behind';
import type { Cell } from '@periwinkle/core/cascade/plates/plate-grid';
import type { EditScope } from '@periwinkle/core/cascade/plates/scope';
import type { Component } from '@periwinkle/core/components/component';
import { ruleSource } from '@periwinkle/core/components/rule-source';
import {
  moveRulePatch,
  removeRulePatch,
  settingPatch,
  type SettingTarget,
} from '@periwinkle/core/edits/edit-rules';
import { ledger as ledgerOf, type LedgerColumn, type LedgerRow } from '@periwinkle/core/cascade/ledger';
import { propertyNamed } from '@periwinkle/core/css/property-registry';
import { valueType } from '@periwinkle/core/css/value-types';
import { resolve } from '@periwinkle/core/cascade/resolve';
import type { Box } from '@periwinkle/core/space/box';
import type { ContextInput } from '@periwinkle/core/tokens/contexts';
import { useKeptNumber } from '../common/use-kept-number';
import { useStore, useSystemPart } from '../data/system-context';
import { pageColor } from '../specimen/page-color';
import { WayHere } from './way-here';
import { AddProperty } from './add-property';
import { NewTokenDialog, type TokenEdits } from './new-token-dialog';
import { focusInLedger } from './focus-in-ledger';
import { HeightHandle } from './height-handle';
import { LedgerTable, type EntryPlace } from './ledger-table';
import { ScopeSentence } from './scope-sentence';

export interface LedgerDrawerProps {
  readonly ref: Ref<HTMLElement>;
  readonly component: Component;
  readonly contexts: ContextInput;
  readonly scope: EditScope | null;
  readonly aimed: Box | null;
  readonly selected: readonly Cell[];
  readonly onPlate: number;
  readonly narrowed: Readonly<Record<string, string>>;
  readonly onNarrow: (narrowed: Record<string, string>) => void;
  readonly onAim: (region: Box | null) => void;
  readonly onLeave: () => void;
}

/** Under the plate: what an edit will mean, and the ledger to make it in. */
export function LedgerDrawer(props: LedgerDrawerProps) {
  const { ref, component, contexts, scope, aimed, selected, onPlate, narrowed, onNarrow, onAim, onLeave } =
    props;
  const store = useStore();
  const system = useSystemPart('system');
  const edited = useSystemPart('edited');
  const isAtRest = scope === null;
  // With nothing selected the plate has the room; each of the two is as one has left it.
  const [open, setOpen] = useState({ atRest: false, selected: true });
  const isOpen = isAtRest ? open.atRest : open.selected;
  const [height, setHeight] = useKeptNumber('ledger-height');
  const section = useRef<HTMLElement>(null);
  useImperativeHandle(ref, () => section.current!);
  const [editing, setEditing] = useState<EntryPlace | null>(null);
  const [extra, setExtra] = useState<readonly { part: string; property: string }[]>([]);
  const [making, setMaking] = useState<{ place: EntryPlace; name: string } | null>(null);
  const path = system.fileOf.get(component.id)!;
  // The ledger shows what is written, not what is being tried out: otherwise its rows would move under the hand.
  const written = edited.components.find(each => each.id === component.id) ?? component;
  // The same for as long as tokens are: what is tried out in a component leaves the ledger alone.
  const tokens = system.tokens.in(contexts);
  const { rootFontSize } = system;
  const context = useMemo(() => ({ tokens, rootFontSize }), [tokens, rootFontSize]);
  const combinations = useMemo(() => selected.map(cell => cell.combination), [selected]);
  const region = scope?.region ?? null;
  const shown = useMemo(() => {
    const made = ledgerOf(written, combinations, region, context);
    return { ...made, rows: withExtra(made.rows, extra, made.columns.length, written) };
  }, [written, combinations, region, context, extra]);

  const targetOf = useCallback(
    (place: EntryPlace): SettingTarget => (place.rule === null ? { region: region! } : { rule: place.rule }),
    [region],
  );
  const leave = useCallback((): void => {
    store.endTryOut();
    setEditing(null);
  }, [store]);
  const set = (place: EntryPlace, text: string | null, changeId?: string): void => {
    const patch = settingPatch(written, targetOf(place), place.part, place.property, text);
    const column = shown.columns.find(each => (each.rule?.id ?? null) === place.rule);
    const what = text === null ? 'taken out' : `set to ${text}`;
    store.edit(
      path,
      patch,
      `${written.title}: ${place.part} ${place.property} ${what}, ${column?.words ?? ''}`,
      changeId,
    );
  };
  const focusEntry = (place: EntryPlace): void =>
    focusInLedger(
      `${place.part}.${place.property}`,
      shown.columns.findIndex(each => (each.rule?.id ?? null) === place.rule),
    );
  const editorFor = (place: EntryPlace) => ({
    contrastOf: contrastFor(place.part, place.property),
    fault: (text: string) =>
      text.trim() === '' ? null : entryProblem(written, context.tokens, place.part, place.property, text),
    onTry: (text: string | null) => {
      if (text === null || text.trim() === '') store.endTryOut();
      else store.tryOut(path, settingPatch(written, targetOf(place), place.part, place.property, text));
    },
    onSet: (text: string) => {
      store.endTryOut();
      set(place, text.trim() === '' ? null : text);
      setEditing(null);
      focusEntry(place);
    },
    onLeave: () => {
      leave();
      focusEntry(place);
    },
    onNewToken:
      tokenTypesOf(place.property).length === 0
        ? null
        : (name: string) => {
            leave();
            setMaking({ place, name });
          },
  });

  /** Makes a token and uses it, as one change. */
  const makeAndUse = (key: string, edits: TokenEdits): void => {
    const { place } = making!;
    const changeId = nanoid();
    for (const { file, patch } of edits) store.edit(file, patch, `${key} made`, changeId);
    set(place, `{${key}}`, changeId);
    setMaking(null);
    focusEntry(place);
  };

  /** Contrast of a colour against what is really behind it, in the first selected specimen. */
  const contrastFor = (part: string, property: string): ((value: string) => number | null) | null => {
    const [first] = selected;
    const kind = propertyNamed(property)?.kind;
    if (kind !== 'color' || property === 'background-color') return null;
    const parts = resolve(written, first?.combination ?? {}, context).parts;
    const surface = surfaceBehind(written, parts, part, pageColor(system, contexts), property === 'color');
    return value => contrast(value, surface);
  };

  const moveRule = (id: string, by: -1 | 1): void => {
    store.edit(
      path,
      moveRulePatch(written, id, by),
      `${written.title}: rule ${id} moved ${by < 0 ? 'earlier' : 'later'}`,
    );
  };
  const removeRule = (id: string): void => {
    const { kind } = ruleSource(written, id);
    const done = { own: 'removed', base: 'left out', overlaid: 'as in its base again', nested: '' }[kind];
    store.edit(path, removeRulePatch(written, id), `${written.title}: rule ${id} ${done}`);
  };
  const aim = (column: LedgerColumn): void =>
    onAim(column.isScope || !column.rule ? null : column.rule.region);

  return (
    <section
      className="drawer"
      ref={section}
      aria-label="Ledger"
      style={isOpen && height !== null ? { height, maxHeight: 'none' } : undefined}
      onBlur={event => event.currentTarget.contains(event.relatedTarget) || editing || onAim(null)}
    >
      {isOpen ? <HeightHandle label="Height of the ledger" target={section} onHeight={setHeight} /> : null}
      <div className="scope-line">
        <ScopeSentence
          component={written}
          scope={scope}
          aimed={aimed}
          onPlate={onPlate}
          narrowed={narrowed}
          onNarrow={onNarrow}
        />
        {selected.length === 1 && !aimed ? <WayHere component={component} cell={selected[0]!} /> : null}
        <button
          type="button"
          className="act"
          aria-expanded={isOpen}
          onClick={() => setOpen({ ...open, [isAtRest ? 'atRest' : 'selected']: !isOpen })}
        >
          {isOpen ? 'put the ledger down' : 'draw the ledger up'}
        </button>
      </div>
      {isOpen ? (
        <>
          <LedgerTable
            system={system}
            contexts={contexts}
            ledger={shown}
            editing={editing}
            editorFor={editorFor}
            onEdit={place => {
              store.endTryOut();
              setEditing(place);
            }}
            onRemove={place => set(place, null)}
            onAim={aim}
            onMoveRule={moveRule}
            onRemoveRule={removeRule}
            onLeave={onLeave}
          />
          <div style={{ padding: '0 28px' }}>
            <AddProperty
              component={written}
              onAdd={(part, property) => {
                setExtra(before => [...before, { part, property }]);
                const rule = shown.columns.find(column => column.isScope) ?? shown.columns.at(-1);
                if (rule) setEditing({ part, property, rule: rule.rule?.id ?? null });
              }}
            />
          </div>
        </>
      ) : null}
      {making ? (
        <NewTokenDialog
          system={edited}
          name={making.name}
          types={tokenTypesOf(making.place.property)}
          onMake={makeAndUse}
          onClose={() => setMaking(null)}
        />
      ) : null}
    </section>
  );
}

/** Types of tokens that a property takes. */
function tokenTypesOf(property: string): readonly string[] {
  const row = propertyNamed(property);
  return row ? valueType(row.kind).tokenTypes : [];
}

/** Puts rows that were asked for among the others, in anatomical order; those that have come about are not doubled. */
function withExtra(
  rows: readonly LedgerRow[],
  extra: readonly { part: string; property: string }[],
  columns: number,
  component: Component,
): LedgerRow[] {
  const missing = extra.filter(
    each => !rows.some(row => row.part === each.part && row.property === each.property),
  );
  const empty = missing.map(each => ({
    ...each,
    entries: Array.from({ length: columns }, () => null),
    outcomes: [],
  }));
  const order = component.anatomy.everyPart.map(part => part.name);
  return [...rows, ...empty].sort((a, b) => order.indexOf(a.part) - order.indexOf(b.part));
}
