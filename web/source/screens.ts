import type { ComponentType } from 'react';

/** A screen: where it is, and what is fetched for it the first time it is seen. */
export interface ScreenRow {
  /** Below a system’s address; several show the same screen. */
  readonly paths: readonly string[];
  readonly load: () => Promise<ComponentType>;
}

/** Every screen of a system. The names of the book's parts cannot be component ids, which come last. */
export const SCREENS: readonly ScreenRow[] = [
  { paths: [''], load: async () => (await import('./fields/fields-screen')).FieldsScreen },
  { paths: ['icons'], load: async () => (await import('./icons/icons-screen')).IconsScreen },
  { paths: ['lineup'], load: async () => (await import('./fields/lineup-screen')).LineupScreen },
  { paths: ['new'], load: async () => (await import('./making/new-field-screen')).NewFieldScreen },
  { paths: ['tokens'], load: async () => (await import('./tokens/tokens-screen')).TokensScreen },
  {
    paths: ['trials', 'trials/:trialId'],
    load: async () => (await import('./trials/trials-screen')).TrialsScreen,
  },
  {
    paths: ['guide', 'guide/:componentId'],
    load: async () => (await import('./guide/guide-screen')).GuideScreen,
  },
  { paths: ['outputs'], load: async () => (await import('./outputs/outputs-screen')).OutputsScreen },
  {
    paths: [':componentId'],
    load: async () => (await import('./component/component-screen')).ComponentScreen,
  },
  {
    paths: [':componentId/anatomy'],
    load: async () => (await import('./anatomy/anatomy-screen')).AnatomyScreen,
  },
  {
    paths: [':componentId/behaviour'],
    load: async () => (await import('./behaviour/behaviour-screen')).BehaviourScreen,
  },
  {
    paths: [':componentId/content'],
    load: async () => (await import('./content/content-screen')).ContentScreen,
  },
  { paths: [':componentId/space'], load: async () => (await import('./space/space-screen')).SpaceScreen },
  { paths: [':componentId/rules'], load: async () => (await import('./rules/rules-screen')).RulesScreen },
];
