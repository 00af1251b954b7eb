import { useMemo } from 'react';
import { drawnAt, type PlayedField } from '@periwinkle/core/behaviour/rendered-field';
import { beginning, moments, StoppedPlay, type Played } from '@periwinkle/core/behaviour/play';
import { situationAt } from '@periwinkle/core/behaviour/situation-at';
import type { Component } from '@periwinkle/core/components/component';
import type { System } from '@periwinkle/core/components/system';
import type { FieldState } from '@periwinkle/core/behaviour/field-state';

/** A moment of a play as it is drawn. */
export interface DrawnMoment extends ReturnType<typeof drawnAt> {
  readonly played: Played;
  /** Title of the situation that it is in. */
  readonly situation: string | null;
}

export interface Play {
  readonly moments: readonly DrawnMoment[];
  /** Why it stops before its end. */
  readonly stopped: string | null;
}

/** Plays acts from rest. */
export function useMoments(
  system: System,
  component: Component,
  sampleId: string | undefined,
  set: Readonly<Record<string, string>> | undefined,
  acts: readonly string[],
): Play {
  // Acts may hold line breaks of their own.
  const script = JSON.stringify(acts);
  return useMemo(() => {
    const sample = component.samples.find(({ id }) => id === sampleId) ?? component.samples[0];
    const input = { system, component, sample, ...(set ? { set } : {}) };
    const { field } = beginning(input);
    const list = JSON.parse(script) as string[];
    try {
      return { moments: drawn(field, moments({ ...input, acts: list })), stopped: null };
    } catch (error) {
      if (!(error instanceof StoppedPlay)) throw error;
      const before = moments({ ...input, acts: list.slice(0, error.place) });
      return { moments: drawn(field, before), stopped: error.message };
    }
  }, [system, component, sampleId, set, script]);
}

const drawn = (
  field: PlayedField,
  found: readonly { readonly played: Played; readonly state: FieldState }[],
): DrawnMoment[] =>
  found.map(({ played, state }) => ({
    ...drawnAt(field, state),
    played,
    situation: situationAt(field.component, field.component.space.indices(played.combination))?.title ?? null,
  }));
