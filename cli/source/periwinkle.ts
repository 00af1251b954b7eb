import { Command, CommanderError } from 'commander';
import {
  build,
  check,
  contested,
  count,
  cover,
  layOut,
  playActs,
  reachRegion,
  resolveCells,
  tokens,
  type Output,
  type Status,
} from './commands';
import { UsageError } from './load';

/** An option: how it is written, what it says, and what holds without it; `needed`: there is no running without. */
interface OptionRow {
  readonly flags: string;
  readonly words: string;
  readonly otherwise?: string;
  readonly needed?: true;
}

interface CommandRow {
  readonly name: string;
  readonly words: string;
  readonly options: readonly OptionRow[];
  readonly run: (dir: string, options: never, output: Output) => Status;
}

const COMPONENT: OptionRow = { flags: '--component <id>', words: 'the component', needed: true };
const CELLS: OptionRow = { flags: '--cells <file>', words: 'a JSON array of combinations', needed: true };
const CONTEXT: OptionRow = { flags: '--context <pairs>', words: 'contexts of the tokens: "theme=night"' };
const BEGIN_WITH: OptionRow = {
  flags: '--sample <id>',
  words: 'content to begin with; the first where none is named',
};
const JSON_ALONE: OptionRow = { flags: '--json', words: 'print JSON alone on standard output' };

/** Every command, in the order in which help lists them. */
const COMMANDS: readonly CommandRow[] = [
  { name: 'check', words: 'list every problem', options: [JSON_ALONE], run: check },
  {
    name: 'count',
    words: 'count the allowed combinations',
    options: [
      { flags: '--component <id>', words: 'only this component' },
      { flags: '--when <condition>', words: 'only where this holds: "size=large,pointer=over"' },
      JSON_ALONE,
    ],
    run: count,
  },
  {
    name: 'resolve',
    words: 'tell how combinations look, and why',
    options: [COMPONENT, CELLS, CONTEXT, JSON_ALONE],
    run: resolveCells,
  },
  {
    name: 'geometry',
    words: 'tell where parts lie, in px',
    options: [
      COMPONENT,
      CELLS,
      { flags: '--width <px>', words: 'what the page gives it', otherwise: '320' },
      { flags: '--sample <id>', words: 'content to lay out; the first where none is named' },
      CONTEXT,
      JSON_ALONE,
    ],
    run: layOut,
  },
  {
    name: 'play',
    words: 'play acts, and tell what comes of each',
    options: [
      COMPONENT,
      {
        flags: '--script <file>',
        words: 'a JSON array of acts: ["press frame", "type Osprey", "leave"]',
        needed: true,
      },
      BEGIN_WITH,
      { flags: '--set <pairs>', words: 'options and states that the application sets: "size=large"' },
      JSON_ALONE,
    ],
    run: playActs,
  },
  {
    name: 'reach',
    words: 'find the shortest acts that lead into a region',
    options: [
      COMPONENT,
      { flags: '--when <condition>', words: 'where to get: "validity=invalid,focus=in"', needed: true },
      BEGIN_WITH,
      JSON_ALONE,
    ],
    run: reachRegion,
  },
  {
    name: 'tokens',
    words: 'list the tokens with all references replaced',
    options: [{ flags: '--context <pairs>', words: 'contexts: "theme=night"' }, JSON_ALONE],
    run: tokens,
  },
  {
    name: 'build',
    words: 'write stylesheets, markup and scripts',
    options: [
      { flags: '--out <dist>', words: 'folder to write to', needed: true },
      { flags: '--component <id>', words: 'only this component' },
      { flags: '--host', words: 'also stylesheets for the inside of shadow roots' },
    ],
    run: build,
  },
  {
    name: 'contested',
    words: 'tell where only the order of two rules decides',
    options: [COMPONENT, { flags: '--fail', words: 'exit status 1 when something is contested' }, JSON_ALONE],
    run: contested,
  },
  {
    name: 'cover',
    words: 'print few combinations that show every pair of values',
    options: [
      COMPONENT,
      { flags: '--strength <n>', words: '2 for pairs, 3 for triples', otherwise: '2' },
      { flags: '--situations', words: 'show every situation, too' },
      JSON_ALONE,
    ],
    run: cover,
  },
];

/** Runs the command line on its arguments (without node and script) and gives the exit status. */
export function run(args: readonly string[], output: Output): Status {
  let status: Status = 0;
  const program = new Command('periwinkle')
    .description('Checks, counts, resolves and builds a design system from its folder.')
    .version('0.1.0')
    .exitOverride()
    .configureOutput({ writeOut: output.out, writeErr: output.err })
    .showHelpAfterError('Run "periwinkle help" for the commands.');
  for (const { name, words, options, run: act } of COMMANDS) {
    const command = program.command(`${name} <dir>`).description(words);
    for (const { flags, words: what, otherwise, needed } of options) {
      if (needed) command.requiredOption(flags, what);
      else command.option(flags, what, otherwise);
    }
    command.action((dir: string, given: unknown) => {
      status = act(dir, given as never, output);
    });
  }
  try {
    program.parse([...args], { from: 'user' });
  } catch (error) {
    if (error instanceof UsageError) {
      output.err(`periwinkle: ${error.message}\n`);
      return 2;
    }
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    throw error;
  }
  return status;
}
