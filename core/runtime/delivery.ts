import type { Component } from '../components/component';
import type { System } from '../components/system';
import { outputFiles, type OutputFile, type OutputOptions } from '../output/outputs';
import { behaviourFiles } from './behaviour-files';

/** All that is handed over for the named components, or for all: stylesheets, markup, how to use them, and scripts. The same system gives the same bytes. */
export const delivery = (
  system: System,
  components: readonly Component[] = system.components,
  options: OutputOptions = {},
): OutputFile[] => [...outputFiles(system, components, options), ...behaviourFiles(system, components)];
