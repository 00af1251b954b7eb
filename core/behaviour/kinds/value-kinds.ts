import { amount } from './amount';
import { choice } from './choice';
import { code } from './code';
import { count } from './count';
import { search } from './search';
import { time } from './time';
import { toggle } from './toggle';
import { TEXT, type ValueKind } from './value-kind';

/** Every kind of value; adding one is adding a row. */
export const BEHAVIOUR_KINDS: Readonly<Record<string, ValueKind>> = {
  text: TEXT,
  secret: TEXT,
  area: { ...TEXT, takesLines: true },
  search,
  count,
  amount,
  time,
  code,
  choice,
  toggle,
};
