import { halfOf, shownTime, timeIn } from '../../components/content/times';
import { TEXT, type ValueKind } from './value-kind';

export const time: ValueKind = {
  ...TEXT,
  isMisfit: value => !/^([01]\d|2[0-3]):[0-5]\d$/.test(value),
  read: (text, clock, before) => timeIn(text, clock, before) ?? text,
  shown: shownTime,
  edited: shownTime,
  half: halfOf,
};
