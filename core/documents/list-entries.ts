/** What the entries of a component's lists are, one of each, by the list. */
export const LIST_ENTRIES = {
  axes: 'axis',
  values: 'value',
  rules: 'rule',
  limits: 'limit',
  situations: 'situation',
  samples: 'sample',
  plates: 'plate',
  parameters: 'parameter',
  walkthroughs: 'walkthrough',
} as const;
