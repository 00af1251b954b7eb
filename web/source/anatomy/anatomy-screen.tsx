import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Component } from '@periwinkle/core/components/component';
import { sampleNamed } from '@periwinkle/core/cascade/plates/plate-grid';
import { Choice } from '../common/choice';
import { counted } from '../common/numbers';
import { sheetScreen } from '../component/sheet-screen';
import { usePageKeys } from '../common/shortcuts';
import { useContexts } from '../data/address';
import { SHOWN, shownIn, shownText } from '../data/shown-address';
import { useSystemPart } from '../data/system-context';
import { partLines } from './part-lines';
import { ParameterList } from './parameter-list';
import { PartDetails } from './part-details';
import { PartList } from './part-list';
import { Stage } from './stage';

const PART = 'part';
const SAMPLE = 'sample';
const SCALE = 'times';
const SCALES = ['1.5', '2', '2.5'];

/** How a component is made: drawn large with its parts numbered, and the parts in reading order. */
export const AnatomyScreen = sheetScreen('system', AnatomySheet);

function AnatomySheet({ component }: { component: Component }) {
  const system = useSystemPart('system');
  const contexts = useContexts(system.tokens);
  const [parameters, setParameters] = useSearchParams();
  const set = (changes: Readonly<Record<string, string | null>>): void =>
    setParameters(before => {
      const after = new URLSearchParams(before);
      for (const [key, value] of Object.entries(changes)) {
        if (value === null) after.delete(key);
        else after.set(key, value);
      }
      return after;
    });
  const combination = useMemo(() => shownIn(component, parameters.get(SHOWN)), [component, parameters]);
  const lines = useMemo(() => partLines(system, component, combination), [system, component, combination]);
  const selected = lines.find(({ name }) => name === parameters.get(PART)) ?? null;
  const scale = Number(parameters.get(SCALE) ?? '2');
  const sample = sampleNamed(component, parameters.get(SAMPLE) ?? undefined);
  const [difference, setDifference] = useState<number | null>(null);
  const select = (name: string | null): void => set({ [PART]: name });
  usePageKeys({ Escape: () => (selected ? select(null) : false) });
  const nested = lines.filter(({ uses }) => uses !== null).length;
  const { space } = component;
  return (
    <>
      <div className="strip">
        <span>
          <span className="said">shown</span>{' '}
          {space.axes.map((axis, index) => (
            <span key={axis.id}>
              {index > 0 ? ', ' : ''}
              <Choice
                label={axis.title}
                value={combination[axis.id] ?? null}
                items={axis.values.map(value => ({ id: value.id, words: value.words }))}
                onChoose={value =>
                  set({ [SHOWN]: shownText(component, { ...combination, [axis.id]: value }) })
                }
                className={combination[axis.id] === axis.values[axis.rest]!.id ? 'off' : ''}
              >
                {axis.values.find(value => value.id === combination[axis.id])?.words}
              </Choice>
            </span>
          ))}
        </span>
        {component.samples.length > 0 ? (
          <span>
            <span className="said">content</span>{' '}
            <Choice
              label="content"
              value={sample?.id ?? null}
              items={component.samples.map(each => ({ id: each.id, words: each.title ?? each.id }))}
              onChoose={value => set({ [SAMPLE]: value })}
            >
              {sample?.title ?? sample?.id}
            </Choice>
          </span>
        ) : null}
        <span>
          <span className="said">size</span>{' '}
          <Choice
            label="size"
            value={String(scale)}
            items={SCALES.map(value => ({ id: value, words: `${value} times` }))}
            onChoose={value => set({ [SCALE]: value })}
          >
            {scale} times
          </Choice>
        </span>
      </div>
      <div className="anatomy-sheet">
        <div>
          <Stage
            system={system}
            component={component}
            combination={combination}
            sample={sample}
            contexts={contexts}
            scale={scale}
            lines={lines}
            selected={selected}
            onSelect={select}
            onCompared={setDifference}
          />
          <div className="caption">
            <span>
              <b>Anatomy of {component.title}.</b> {counted(lines.length, 'part')}
              {nested === 0
                ? ''
                : nested === 1
                  ? ', one of them a component of its own'
                  : `, ${nested} of them components of their own`}
              .{' '}
              {lines.filter(({ isDrawn }) => !isDrawn).length > 0
                ? 'What is not there in this look has a number in the list alone.'
                : ''}
            </span>
            <span className={difference !== null && difference > 0.5 ? 'fails' : ''}>
              {difference === null
                ? ''
                : difference > 0.5
                  ? `the browser draws it ${difference.toFixed(1)} px otherwise`
                  : 'measured as the browser draws it'}
            </span>
          </div>
        </div>
        <div>
          <PartList component={component} lines={lines} selected={selected} onSelect={select} />
          {selected ? (
            <PartDetails key={selected.name} component={component} line={selected} onSelect={select} />
          ) : null}
          <ParameterList component={component} />
        </div>
      </div>
    </>
  );
}
