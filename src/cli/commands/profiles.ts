import { Command } from 'commander';
import { hold, HOLDS, naturalHold } from '../../core/profile/hold.js';
import { mediaQueryOf } from '../../core/profile/media-query.js';
import { pickDevices, type Catalogue } from '../../core/profile/pick.js';
import { searchProfiles } from '../../core/profile/search.js';
import { catalogueFor } from '../catalogue-for.js';
import { profileDetails, profileTable } from '../output/profile-table.js';
import { importCommand } from './profiles-import.js';

const EXAMPLES = `
Examples:
  isoptic profiles                          all profiles, by class
  isoptic profiles phone ios                those that all words fit
  isoptic profiles width 360..420 dpr 3     by number or span: width, height, dpr, density
  isoptic profiles --show ios-phone-390     all of one, with its media query
  isoptic profiles import visits.csv        the smallest lineup for your visitors`;

export function profilesCommand(): Command {
  return new Command('profiles')
    .argument('[words...]', 'only profiles that all words fit')
    .option('--show <name>', 'everything about one profile')
    .option('--json', 'print JSON')
    .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
    .addHelpText('after', EXAMPLES)
    .addCommand(importCommand())
    .action(async (words: string[], options: { show?: string; json?: boolean; config?: string }) => {
      const catalogue = await catalogueFor(options.config);
      if (options.show !== undefined) {
        showOne(options.show, catalogue, options.json === true);
        return;
      }
      const shown = searchProfiles(catalogue.profiles, words);
      if (options.json === true) {
        process.stdout.write(`${JSON.stringify(shown, null, 2)}\n`);
      } else if (shown.length === 0) {
        const all = catalogue.profiles.length;
        process.stdout.write(
          `No profile fits "${words.join(' ')}". \`isoptic profiles\` lists all ${all}.\n`,
        );
      } else {
        process.stdout.write(`${profileTable(shown)}\n`);
      }
    });
}

function showOne(written: string, catalogue: Catalogue, json: boolean): void {
  const [device] = pickDevices([{ on: written }], catalogue);
  const profile = catalogue.profiles.find((candidate) => candidate.name === written.split(':')[0])!;
  const holds = HOLDS.filter(
    (each) => profile.viewport[each.startsWith('portrait') ? 'portrait' : 'landscape'],
  );
  const held = holds.map((each) => hold(profile, catalogue.agents, each));
  const query = mediaQueryOf(device!);
  if (json) {
    const shown = {
      ...profile,
      natural: naturalHold(profile),
      mediaQuery: query,
      userAgent: device!.agent.userAgent,
    };
    process.stdout.write(`${JSON.stringify({ ...shown, hints: device!.agent.hints, held }, null, 2)}\n`);
  } else {
    process.stdout.write(`${profileDetails(profile, device!, held, query)}\n`);
  }
}
