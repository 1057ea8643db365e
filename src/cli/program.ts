import { Command } from 'commander';
import { VERSION } from '../version.js';

/** Every command, in the order of the help. What one needs is loaded when it is called. */
const COMMANDS: readonly {
  readonly name: string;
  readonly does: string;
  readonly load: () => Promise<Command>;
}[] = [
  {
    name: 'check',
    does: 'render pages on every profile, flag what is broken, write a run',
    load: async () => (await import('./commands/check.js')).checkCommand(),
  },
  {
    name: 'sweep',
    does: 'search every width: where the layout changes, and where it breaks, to the px',
    load: async () => (await import('./commands/sweep.js')).sweepCommand(),
  },
  {
    name: 'breakpoints',
    does: 'list the media queries in force: where they stand, what they change, what is wrong with them',
    load: async () => (await import('./commands/breakpoints.js')).breakpointsCommand(),
  },
  {
    name: 'film',
    does: 'film a page as its width runs, as it scrolls, as the device turns: webp or gif',
    load: async () => (await import('./commands/film.js')).filmCommand(),
  },
  {
    name: 'compare',
    does: 'say what differs between two runs, two profiles, or staging and live',
    load: async () => (await import('./commands/compare.js')).compareCommand(),
  },
  {
    name: 'baseline',
    does: 'keep a run that later ones are held against',
    load: async () => (await import('./commands/baseline.js')).baselineCommand(),
  },
  {
    name: 'demo',
    does: 'check the site that ships with Isoptic, as found and repaired',
    load: async () => (await import('./commands/demo.js')).demoCommand(),
  },
  {
    name: 'sheet',
    does: 'draw a contact sheet of a run: png, webp or pdf',
    load: async () => (await import('./commands/sheet.js')).sheetCommand(),
  },
  {
    name: 'report',
    does: 'tell a run in other formats: csv, junit, sarif, markdown, …',
    load: async () => (await import('./commands/report.js')).reportCommand(),
  },
  {
    name: 'open',
    does: 'show the report of the newest run, or of a named one, in your browser',
    load: async () => (await import('./commands/open.js')).openCommand(),
  },
  {
    name: 'runs',
    does: 'list the runs there are; remove old ones',
    load: async () => (await import('./commands/runs.js')).runsCommand(),
  },
  {
    name: 'profiles',
    does: 'list and search the device profiles',
    load: async () => (await import('./commands/profiles.js')).profilesCommand(),
  },
  {
    name: 'doctor',
    does: 'say what is installed, what is missing, and what to do',
    load: async () => (await import('./commands/doctor.js')).doctorCommand(),
  },
  {
    name: 'init',
    does: 'write a commented configuration to start from',
    load: async () => (await import('./commands/init.js')).initCommand(),
  },
];

const EXAMPLES = `
Start with:
  isoptic demo                  the full example, on the site that ships with Isoptic
  isoptic check site/ --all     your own pages on six profiles
  isoptic help check            all options of one command`;

/**
 * The program for one call. Commander's own exits are turned into errors, so that there is one place that ends the process.
 * @param args what was written after the program's name
 */
export async function program(args: readonly string[]): Promise<Command> {
  const root = new Command('isoptic')
    .description(
      'Renders web pages on emulated device profiles and flags overflow, overlap and clipped content.',
    )
    .version(VERSION, '--version', 'print the version')
    .helpOption('--help', 'print help')
    .addHelpText('after', EXAMPLES);
  for (const { name, does, load } of COMMANDS) {
    const command = args.includes(name) ? await load() : new Command(name);
    root.addCommand(command.description(does).helpOption('--help', 'print help'));
  }
  for (const command of [root, ...root.commands]) {
    command
      .exitOverride()
      .showSuggestionAfterError()
      .showHelpAfterError('Run with --help to see how it is used.');
  }
  return root;
}
