import type { Component } from '@periwinkle/core/components/component';
import { readable } from '@periwinkle/core/space/axis';
import { Choice, type ChoiceItem } from '../common/choice';
import { PlateActs } from './plate-acts';
import type { PlateAddress, usePlateAddress } from './plate-address';

type Direction = 'across' | 'down';
type Change = ReturnType<typeof usePlateAddress>['change'];

/** Says what runs across, what runs down, what is held and whose content is shown; each word opens its choices. */
export function ArrangementStrip({
  component,
  address,
  change,
}: {
  component: Component;
  address: PlateAddress;
  change: Change;
}) {
  const { arrangement } = address;
  const laidOut = new Set([...arrangement.across, ...arrangement.down]);
  const held = component.space.axes.filter(
    axis => !laidOut.has(axis.id) && (axis.kind === 'option' || axis.id in arrangement.hold),
  );
  const heldStates = component.space.axes.filter(
    axis => !laidOut.has(axis.id) && axis.kind === 'state' && !(axis.id in arrangement.hold),
  );
  const situationsShown = laidOut.has('situation');
  const plates = component.plates.map(plate => ({ id: plate.id, words: plate.title ?? plate.id }));
  const hold = (axis: string, value: string): void =>
    change({ arrangement: { hold: { ...arrangement.hold, [axis]: value } } });
  return (
    <div className="strip">
      {plates.length > 1 ? (
        <span>
          <span className="said">plate</span>{' '}
          <Choice
            label="Plate"
            value={address.plateId ?? plates[0]!.id}
            items={plates}
            onChoose={plateId => change({ plateId })}
          >
            {plates.find(plate => plate.id === address.plateId)?.words ?? plates[0]!.words}
          </Choice>
        </span>
      ) : null}
      <DirectionWords component={component} direction="across" address={address} change={change} />
      <DirectionWords component={component} direction="down" address={address} change={change} />
      <span>
        <span className="said">held</span>{' '}
        {held.map((axis, index) => {
          const value =
            axis.values.find(each => each.id === arrangement.hold[axis.id]) ?? axis.values[axis.rest]!;
          return (
            <span key={axis.id}>
              {index > 0 ? ', ' : ''}
              <Choice
                label={axis.title}
                value={value.id}
                items={axis.values.map(each => ({ id: each.id, words: each.title, hint: each.description }))}
                onChoose={id => hold(axis.id, id)}
              >
                {value.words}
              </Choice>
            </span>
          );
        })}
        {!situationsShown && heldStates.length > 0 ? (
          <>
            {held.length > 0 ? ', ' : ''}
            <Choice
              label="States held"
              value={null}
              items={heldStates.flatMap(axis =>
                axis.values.map(value => ({ id: `${axis.id}:${value.id}`, words: value.words })),
              )}
              onChoose={id => hold(...(id.split(':') as [string, string]))}
            >
              at rest
            </Choice>
          </>
        ) : null}
      </span>
      <span>
        <span className="said">content</span>{' '}
        <Choice
          label="Content"
          value={arrangement.sample}
          items={component.samples.map(sample => ({ id: sample.id, words: sample.title ?? sample.id }))}
          onChoose={sample => change({ arrangement: { sample } })}
        >
          {component.samples.find(sample => sample.id === arrangement.sample)?.title ??
            component.samples[0]?.title ??
            'none'}
        </Choice>
      </span>
      <PlateActs
        component={component}
        plateId={address.plateId}
        arrangement={arrangement}
        onPlate={plateId => change({ plateId })}
      />
    </div>
  );
}

/** The axes of one direction: each word moves, replaces or takes away its axis; the last one adds another. */
function DirectionWords({
  component,
  direction,
  address,
  change,
}: {
  component: Component;
  direction: Direction;
  address: PlateAddress;
  change: Change;
}) {
  const { arrangement } = address;
  const here = arrangement[direction];
  const other: Direction = direction === 'across' ? 'down' : 'across';
  const every = ['situation', ...component.space.axes.map(axis => axis.id)];
  const name = (id: string): string =>
    id === 'situation'
      ? 'situations'
      : (component.space.axes.find(axis => axis.id === id)?.title ?? readable(id)).toLowerCase();
  const free = every.filter(id => !arrangement.across.includes(id) && !arrangement.down.includes(id));
  const set = (mine: readonly string[], theirs: readonly string[] = arrangement[other]): void =>
    change({ arrangement: { [direction]: mine, [other]: theirs } });
  const act = (axis: string, action: string): void => {
    const rest = here.filter(each => each !== axis);
    if (action === '/remove') set(rest);
    else if (action === '/move') set(rest, [...arrangement[other], axis]);
    else if (action === '/first') set([axis, ...rest]);
    else if (action.startsWith('/value ')) show(axis, action);
    else set(here.map(each => (each === axis ? action : each)));
  };
  const all = (axis: string): readonly { id: string; words: string }[] =>
    axis === 'situation'
      ? component.situations.map(({ id, title }) => ({ id, words: title }))
      : (component.space.axes.find(each => each.id === axis)?.values ?? []);
  const shownOf = (axis: string): readonly string[] =>
    arrangement.values?.[axis] ?? all(axis).map(({ id }) => id);
  const show = (axis: string, action: string): void => {
    const [, what, value] = action.split(' ') as [string, string, string];
    const others = shownOf(axis).filter(id => id !== value);
    const next = what === 'without' ? others : what === 'first' ? [value, ...others] : [...others, value];
    change({ arrangement: { values: { ...arrangement.values, [axis]: next } } });
  };
  /** Of each value whether it is shown, and the first place. */
  const valueItems = (axis: string): ChoiceItem[] =>
    all(axis).flatMap(({ id, words }) => {
      const at = shownOf(axis).indexOf(id);
      if (at < 0) return [{ id: `/value with ${id}`, words: `with ${words}` }];
      return [
        ...(shownOf(axis).length > 1 ? [{ id: `/value without ${id}`, words: `without ${words}` }] : []),
        ...(at > 0 ? [{ id: `/value first ${id}`, words: `${words} first` }] : []),
      ];
    });
  const items = (axis: string): ChoiceItem[] => [
    ...(here.length > 1 && here[0] !== axis ? [{ id: '/first', words: 'outermost' }] : []),
    { id: '/move', words: `run ${other} instead` },
    { id: '/remove', words: 'hold it' },
    ...free.map(id => ({ id, words: name(id) })),
    ...valueItems(axis),
  ];
  return (
    <span>
      <span className="said">{direction}</span>{' '}
      {here.map((axis, index) => (
        <span key={axis}>
          {index > 0 ? ', ' : ''}
          <Choice
            label={`Runs ${direction}`}
            value={null}
            items={items(axis)}
            onChoose={action => act(axis, action)}
          >
            {name(axis)}
          </Choice>
        </span>
      ))}{' '}
      <Choice
        label={`Add what runs ${direction}`}
        value={null}
        className="off"
        items={free.map(id => ({ id, words: name(id) }))}
        onChoose={id => set([...here, id])}
      >
        {here.length === 0 ? 'nothing' : '+'}
      </Choice>
    </span>
  );
}
