import { useMemo, useState, type ReactNode } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { compileSystem, componentNamed, type System } from '@periwinkle/core/components/system';
import {
  addComponent,
  deriveFrom,
  duplicateComponent,
  type ComponentName,
} from '@periwinkle/core/edits/component-edits';
import type { StructuralEdit } from '@periwinkle/core/edits/restructure';
import { findRoles } from '@periwinkle/core/edits/starting/roles';
import { rolesIn, startComponent, type RoleTokens } from '@periwinkle/core/edits/starting/start-component';
import { STARTING_POINTS, type StartingPoint } from '@periwinkle/core/edits/starting/starting-points';
import { Choice } from '../common/choice';
import { useCarried, useContexts } from '../data/address';
import { useStore, useSystemPart } from '../data/system-context';
import { FieldAtRest } from '../specimen/field-at-rest';
import { PreviewSurface } from '../specimen/preview-surface';
import { SpecimenStyles } from '../specimen/specimen-styles';
import { idOf, isReserved, NameFields, type NewName } from './name-fields';
import { RoleTable } from './role-table';
import { useRestructure } from './use-restructure';

/** How a new component comes about, besides from a starting point. */
const OTHER_WAYS = {
  derived: { title: 'Derived', words: 'follows another field and says only what differs' },
  copy: { title: 'Copy', words: 'says what another field says, and goes its own way' },
  empty: { title: 'Empty', words: 'a box and nothing in it' },
} as const;
type OtherWay = keyof typeof OTHER_WAYS;

/** Where a new field is made: from a starting point, from another field, or from nothing. */
export function NewFieldScreen() {
  const system = useSystemPart('edited');
  const { id: systemId } = useStore();
  const [parameters, setParameters] = useSearchParams();
  const navigate = useNavigate();
  const carried = useCarried();
  const restructure = useRestructure();
  const way = parameters.get('from') ?? 'text';
  const [first] = system.components;
  const model = componentNamed(system, parameters.get('field') ?? '') ?? first;
  const point = STARTING_POINTS.find(each => each.id === way);
  const found = useMemo(() => findRoles(system), [system]);
  const [chosen, setChosen] = useState<RoleTokens>(new Map());
  const tokens = useMemo<RoleTokens>(
    () => new Map([...found.map(({ role, token }) => [role.id, token] as const), ...chosen]),
    [found, chosen],
  );
  const [typed, setTyped] = useState<NewName>({ title: '', id: '', group: '' });
  const [fault, setFault] = useState<string | null>(null);
  const name = named(typed, point, way, model?.title ?? '');
  const id = idOf(name, system);
  const choose = (from: string, field?: string): void => {
    setFault(null);
    setParameters(before => {
      const after = new URLSearchParams(before);
      after.set('from', from);
      if (field !== undefined) after.set('field', field);
      return after;
    });
  };
  const make = (): void => {
    if (isReserved(id)) return setFault(`“${id}” is the address of a part of this book; choose another id.`);
    const whole: ComponentName = { id, title: name.title, ...(name.group ? { group: name.group } : {}) };
    const edit = editFor(way, point, whole, tokens, model?.id);
    const reason = restructure(edit, `${name.title} made`);
    if (reason !== null) return setFault(reason);
    void navigate(`/${systemId}/${id}${carried}`);
  };
  return (
    <>
      <div className="head">
        <h1>New field</h1>
        <span className="said crumb">
          begin with what comes nearest; everything can be changed afterwards
        </span>
      </div>
      <div className="making">
        <section aria-labelledby="begin">
          <h2 id="begin">Begin with</h2>
          <StartingList system={system} tokens={tokens} way={way} onChoose={choose} />
          <h2>Or with</h2>
          {(Object.keys(OTHER_WAYS) as OtherWay[])
            .filter(each => each === 'empty' || first)
            .map(each => (
              <Way key={each} name={each} title={OTHER_WAYS[each].title} chosen={way} onChoose={choose}>
                <span className="words">{OTHER_WAYS[each].words}</span>
                {each === 'empty' || !model ? null : (
                  <span className="model">
                    {each === 'derived' ? 'from ' : 'of '}
                    <Choice
                      label={each === 'derived' ? 'derived from' : 'copy of'}
                      value={model.id}
                      items={system.components.map(component => ({
                        id: component.id,
                        words: component.title,
                      }))}
                      onChoose={field => choose(each, field)}
                    >
                      {model.title}
                    </Choice>
                  </span>
                )}
              </Way>
            ))}
        </section>
        <form
          onSubmit={event => {
            event.preventDefault();
            make();
          }}
        >
          <h2>What it is called</h2>
          <NameFields
            system={system}
            name={typed}
            usual={name.title}
            onName={next => {
              setFault(null);
              setTyped(next);
            }}
          />
          {fault ? (
            <p className="fault" role="alert">
              {fault}
            </p>
          ) : null}
          <p className="acts">
            <button type="submit" className="btn btn-primary">
              Make {name.title}
            </button>
          </p>
          {point ? (
            <>
              <h2>
                On which tokens it stands <small>as the fields that are there use them</small>
              </h2>
              <RoleTable
                system={system}
                found={found}
                needed={rolesIn(point, tokens)}
                tokens={tokens}
                onChoose={(role, token) => setChosen(before => new Map(before).set(role, token))}
              />
            </>
          ) : null}
        </form>
      </div>
    </>
  );
}

/** What stands where nothing was typed. */
function named(typed: NewName, point: StartingPoint | undefined, way: string, model: string): NewName {
  const usual =
    point?.title ?? (way === 'empty' ? 'Field' : `${model}, ${way === 'copy' ? 'a copy' : 'derived'}`);
  return { ...typed, title: typed.title.trim() || usual };
}

function editFor(
  way: string,
  point: StartingPoint | undefined,
  name: ComponentName,
  tokens: RoleTokens,
  model: string | undefined,
): StructuralEdit {
  if (point) return startComponent(point, name, tokens);
  if (way === 'derived' && model) return deriveFrom(model, name);
  if (way === 'copy' && model) return duplicateComponent(model, name);
  return addComponent({
    format: 'periwinkle-component/1',
    ...name,
    anatomy: { part: 'root', kind: 'stack', title: 'Field' },
  });
}

/** The starting points, each drawn on the system's own tokens. */
function StartingList({
  system,
  tokens,
  way,
  onChoose,
}: {
  system: System;
  tokens: RoleTokens;
  way: string;
  onChoose: (way: string) => void;
}) {
  const shown = useMemo(() => withStartingPoints(system, tokens), [system, tokens]);
  const contexts = useContexts(system.tokens);
  return (
    <SpecimenStyles system={shown}>
      {STARTING_POINTS.map(({ id, title, summary }) => {
        const component = componentNamed(shown, previewId(id));
        return (
          <Way key={id} name={id} title={title} chosen={way} onChoose={onChoose}>
            <span className="words">{summary}</span>
            {component ? (
              <PreviewSurface system={shown} contexts={contexts} className="ground">
                <FieldAtRest system={shown} component={component} wants={FILLED} />
              </PreviewSurface>
            ) : null}
          </Way>
        );
      })}
    </SpecimenStyles>
  );
}

const FILLED = { content: 'filled', selection: 'selected' };
const previewId = (id: string): string => `start-${id}`;

/** The system with a component from each starting point, to be looked at. */
function withStartingPoints(system: System, tokens: RoleTokens): System {
  const documents = STARTING_POINTS.reduce((now, point) => {
    const added = startComponent(point, { id: previewId(point.id), title: point.title }, tokens)(now);
    return compileSystem(added);
  }, system);
  return documents;
}

/** One way to begin, to be chosen as one of all. */
function Way({
  name,
  title,
  chosen,
  onChoose,
  children,
}: {
  name: string;
  title: string;
  chosen: string;
  onChoose: (name: string) => void;
  children: ReactNode;
}) {
  return (
    <div className={name === chosen ? 'way chosen' : 'way'}>
      <label>
        <input type="radio" name="way" checked={name === chosen} onChange={() => onChoose(name)} />
        <b>{title}</b>
      </label>
      {children}
    </div>
  );
}
