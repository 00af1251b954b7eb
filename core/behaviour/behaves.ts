import type { Component } from '../components/component';

/** Whether something can be filled in, and is said to behave. */
export const behaves = ({ anatomy, document }: Component): boolean =>
  anatomy.control !== null && document.behaviour !== undefined;
