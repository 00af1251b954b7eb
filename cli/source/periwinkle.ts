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

/** Runs the command line on its arguments (without node and script) and gives the exit status. */
export function run(args: readonly string[], output: Output): Status {
  let status: Status = 0;
  const program = new Command('periwinkle')
    .description('Checks, counts, resolves and builds a design system from its folder.')
    .version('0.1.0')
    .exitOverride()
    .configureOutput({ writeOut: output.out, writeErr: output.err })
    .showHelpAfterError('Run "periwinkle help" for the commands.');
  const json = '--json';
  const jsonText = 'print JSON alone on standard output';
  const keep = (result: Status): void => void (status = result);

  program
    .command('check <dir>')
    .description('list every problem')
    .option(json, jsonText)
    .action((dir, options) => keep(check(dir, options, output)));
  program
    .command('count <dir>')
    .description('count the allowed combinations')
    .option('--component <id>', 'only this component')
    .option('--when <condition>', 'only where this holds: "size=large,pointer=over"')
    .option(json, jsonText)
    .action((dir, options) => keep(count(dir, options, output)));
  program
    .command('resolve <dir>')
    .description('tell how combinations look, and why')
    .requiredOption('--component <id>', 'the component')
    .requiredOption('--cells <file>', 'a JSON array of combinations')
    .option('--context <pairs>', 'contexts of the tokens: "theme=night"')
    .option(json, jsonText)
    .action((dir, options) => keep(resolveCells(dir, options, output)));
  program
    .command('geometry <dir>')
    .description('tell where parts lie, in px')
    .requiredOption('--component <id>', 'the component')
    .requiredOption('--cells <file>', 'a JSON array of combinations')
    .option('--width <px>', 'what the page gives it', '320')
    .option('--sample <id>', 'content to lay out; the first where none is named')
    .option('--context <pairs>', 'contexts of the tokens: "theme=night"')
    .option(json, jsonText)
    .action((dir, options) => keep(layOut(dir, options, output)));
  program
    .command('play <dir>')
    .description('play acts, and tell what comes of each')
    .requiredOption('--component <id>', 'the component')
    .requiredOption('--script <file>', 'a JSON array of acts: ["press frame", "type Osprey", "leave"]')
    .option('--sample <id>', 'content to begin with; the first where none is named')
    .option('--set <pairs>', 'options and states that the application sets: "size=large"')
    .option(json, jsonText)
    .action((dir, options) => keep(playActs(dir, options, output)));
  program
    .command('reach <dir>')
    .description('find the shortest acts that lead into a region')
    .requiredOption('--component <id>', 'the component')
    .requiredOption('--when <condition>', 'where to get: "validity=invalid,focus=in"')
    .option('--sample <id>', 'content to begin with; the first where none is named')
    .option(json, jsonText)
    .action((dir, options) => keep(reachRegion(dir, options, output)));
  program
    .command('tokens <dir>')
    .description('list the tokens with all references replaced')
    .option('--context <pairs>', 'contexts: "theme=night"')
    .option(json, jsonText)
    .action((dir, options) => keep(tokens(dir, options, output)));
  program
    .command('build <dir>')
    .description('write stylesheets, markup and scripts')
    .requiredOption('--out <dist>', 'folder to write to')
    .option('--component <id>', 'only this component')
    .option('--host', 'also stylesheets for the inside of shadow roots')
    .action((dir, options) => keep(build(dir, options, output)));
  program
    .command('contested <dir>')
    .description('tell where only the order of two rules decides')
    .requiredOption('--component <id>', 'the component')
    .option('--fail', 'exit status 1 when something is contested')
    .option(json, jsonText)
    .action((dir, options) => keep(contested(dir, options, output)));
  program
    .command('cover <dir>')
    .description('print few combinations that show every pair of values')
    .requiredOption('--component <id>', 'the component')
    .option('--strength <n>', '2 for pairs, 3 for triples', '2')
    .option('--situations', 'show every situation, too')
    .option(json, jsonText)
    .action((dir, options) => keep(cover(dir, options, output)));

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
