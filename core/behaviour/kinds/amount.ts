import { amountIn, grouped, ungrouped } from '../../components/content/amounts';
import { TEXT, type ValueKind } from './value-kind';

export const amount: ValueKind = {
  ...TEXT,
  isMisfit: value => !/^-?\d+(\.\d+)?$/.test(value),
  read: (text, { locale }) => amountIn(text, locale) ?? text,
  shown: (value, { locale }) => grouped(value, locale),
  edited: (value, { locale }) => ungrouped(value, locale),
};
