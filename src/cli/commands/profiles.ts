import Table from 'cli-table3';
import { Command } from 'commander';
import colors from 'picocolors';
import type { Profile } from '../../core/profile/profile.js';
import { loadCatalogue } from '../../run/catalogue.js';

const EXAMPLES = `
Examples:
  isoptic profiles           all profiles as a table
  isoptic profiles phone     those that have the word in their name, class or platform
  isoptic profiles --json    for scripts`;

export function profilesCommand(): Command {
  return new Command('profiles')
    .description('list the device profiles')
    .argument('[words...]', 'only profiles that all words fit')
    .option('--json', 'print JSON')
    .addHelpText('after', EXAMPLES)
    .action(async (words: string[], options: { json?: boolean }) => {
      const { profiles } = await loadCatalogue();
      const shown = profiles.filter((profile) => words.every((word) => fits(profile, word.toLowerCase())));
      if (options.json === true) {
        process.stdout.write(`${JSON.stringify(shown, null, 2)}\n`);
      } else if (shown.length === 0) {
        process.stdout.write(
          `No profile fits "${words.join(' ')}". \`isoptic profiles\` lists all ${profiles.length}.\n`,
        );
      } else {
        process.stdout.write(`${tableOf(shown)}\n`);
      }
    });
}

function fits(profile: Profile, word: string): boolean {
  return [profile.name, profile.class, profile.platform].some((text) => text.includes(word));
}

function tableOf(profiles: readonly Profile[]): string {
  const table = new Table({
    head: ['name', 'class', 'platform', 'portrait', 'landscape', 'ratio', 'touch'].map((text) =>
      colors.bold(text),
    ),
    style: { head: [], border: [], compact: true },
    chars: Object.fromEntries(
      [
        'top',
        'top-mid',
        'top-left',
        'top-right',
        'bottom',
        'bottom-mid',
        'bottom-left',
        'bottom-right',
        'left',
        'left-mid',
        'mid',
        'mid-mid',
        'right',
        'right-mid',
        'middle',
      ].map((name) => [name, name === 'middle' ? '  ' : '']),
    ),
    colAligns: ['left', 'left', 'left', 'right', 'right', 'right', 'left'],
  });
  const size = (viewport: { width: number; height: number } | undefined) =>
    viewport ? `${viewport.width} × ${viewport.height}` : '–';
  for (const profile of profiles) {
    table.push([
      profile.name,
      profile.class,
      profile.platform,
      size(profile.viewport.portrait),
      size(profile.viewport.landscape),
      profile.dpr,
      profile.touchPoints > 0 ? 'yes' : 'no',
    ]);
  }
  return table.toString();
}
