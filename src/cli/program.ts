import { Command } from 'commander';
import { VERSION } from '../package-file.js';
import { checkCommand } from './commands/check.js';
import { demoCommand } from './commands/demo.js';
import { doctorCommand } from './commands/doctor.js';
import { initCommand } from './commands/init.js';
import { profilesCommand } from './commands/profiles.js';

const EXAMPLES = `
Start with:
  isoptic demo                  the full example, on the site that ships with Isoptic
  isoptic check site/ --all     your own pages on six profiles
  isoptic help check            all options of one command`;

/** All commands. Commander's own exits are turned into errors, so that there is one place that ends the process. */
export function program(): Command {
  const root = new Command('isoptic')
    .description(
      'Renders web pages on emulated device profiles and flags overflow, overlap and clipped content.',
    )
    .version(VERSION, '--version', 'print the version')
    .helpOption('--help', 'print help')
    .addHelpText('after', EXAMPLES);
  for (const command of [checkCommand(), demoCommand(), profilesCommand(), doctorCommand(), initCommand()]) {
    root.addCommand(command.helpOption('--help', 'print help'));
  }
  for (const command of [root, ...root.commands]) {
    command
      .exitOverride()
      .showSuggestionAfterError()
      .showHelpAfterError('Run with --help to see how it is used.');
  }
  return root;
}
