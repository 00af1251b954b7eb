import type { Act } from '../behaviour/acts';
import { COMPARING } from '../behaviour/comparing-checks';
import { BEHAVIOUR_KINDS } from '../behaviour/kinds/value-kinds';
import { noting } from './extras/noting';
import type { ControlView, AttachOptions } from './page-field';
import { listView } from './list-view';
import { toggleView } from './toggle-view';
import { LiveField, type AttachedField } from './live-field';
import { EXTRAS } from './needed-extras';
import type { ShippedPlan } from './shipped-plan';

const CONTROLS: Readonly<Record<string, ControlView>> = { choice: listView, toggle: toggleView };

/** Brings a field to life as its own modules would, and tells of what is done. */
export function attachWhole(
  plan: ShippedPlan,
  root: HTMLElement,
  {
    onAct,
    onDone,
    ...options
  }: AttachOptions & {
    readonly onAct: (act: Act) => void;
    readonly onDone?: () => void;
  },
): AttachedField {
  const kind = BEHAVIOUR_KINDS[plan.value.kind] ?? BEHAVIOUR_KINDS['text']!;
  const control = CONTROLS[plan.value.kind];
  const needed = EXTRAS.filter(({ isNeeded }) => isNeeded(plan)).map(({ make }) => make);
  return new LiveField(
    plan,
    {
      kind,
      ...(control ? { control } : {}),
      comparing: COMPARING,
      extras: [...needed, noting(onAct, onDone)],
    },
    root,
    options,
  );
}
