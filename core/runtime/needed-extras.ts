import { ALONE } from '../behaviour/validation';
import { REPEATING } from '../behaviour/plan-data';
import type { MakeExtra } from './extra';
import { asking } from './extras/asking';
import { boxes } from './extras/boxes';
import { comingParts } from './extras/coming-parts';
import { inForm } from './extras/form';
import { holding } from './extras/holding';
import { moving } from './extras/moving';
import { nestedButtons } from './extras/nested-buttons';
import { numbers } from './extras/numbers';
import { revealing } from './extras/revealing';
import { taking } from './extras/taking';
import type { ShippedPlan } from './shipped-plan';

interface ExtraRow {
  /** Of the module, and what it exports. */
  readonly file: string;
  readonly name: string;
  readonly make: MakeExtra;
  readonly isNeeded: (plan: ShippedPlan) => boolean;
}

/** What only some fields need, in the order in which they write into the page. */
export const EXTRAS: readonly ExtraRow[] = [
  {
    file: 'nested-buttons',
    name: 'nestedButtons',
    make: nestedButtons,
    isNeeded: ({ within, targets }) =>
      within.length > 0 || Object.values(targets).some(({ kind }) => kind === 'button'),
  },
  {
    file: 'coming-parts',
    name: 'comingParts',
    make: comingParts,
    isNeeded: ({ faces, templates }) => faces.length + templates.length > 0,
  },
  { file: 'revealing', name: 'revealing', make: revealing, isNeeded: ({ secretType }) => secretType },
  {
    file: 'numbers',
    name: 'numbers',
    make: numbers,
    isNeeded: ({ value: { kind } }) => kind === 'count' || kind === 'amount',
  },
  { file: 'boxes', name: 'boxes', make: boxes, isNeeded: ({ value: { kind } }) => kind === 'code' },
  {
    file: 'taking',
    name: 'taking',
    make: taking,
    isNeeded: ({ value: { kind, stop } }) => kind === 'code' || stop === true,
  },
  {
    file: 'holding',
    name: 'holding',
    make: holding,
    isNeeded: ({ roles }) => REPEATING.some(role => roles[role] !== undefined),
  },
  {
    file: 'asking',
    name: 'asking',
    make: asking,
    isNeeded: ({ checks }) => checks.some(({ kind }) => kind === 'ask'),
  },
  { file: 'moving', name: 'moving', make: moving, isNeeded: ({ moves }) => moves.length > 0 },
  { file: 'form', name: 'inForm', make: inForm, isNeeded: () => true },
];

/** Whether a field compares its entry with something. */
export const compares = ({ checks }: ShippedPlan): boolean =>
  checks.some(({ kind }) => kind !== 'ask' && !Object.hasOwn(ALONE, kind));
