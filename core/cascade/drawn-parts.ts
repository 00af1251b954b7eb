import type { Component } from '../components/component';

/** Properties that make a box visible. */
const SEEN = /^(background|border|box-shadow|outline)/;

/** The parts that some rule draws something on: a line, a surface, a shadow. */
export const drawnParts = ({ rules }: Component): ReadonlySet<string> =>
  new Set(
    rules.flatMap(rule => rule.written.filter(each => SEEN.test(each.property.name)).map(each => each.part)),
  );
