import type { Component } from '../components/component';
import { originAt } from '../derivation/origin';

/** What a derived component takes of its base was no slip there; that something of it was left out makes it none. */
export const isWrittenHere = ({ derivation }: Component, at: string): boolean =>
  derivation === null || originAt(derivation.origin, at).file === derivation.origin.file;
