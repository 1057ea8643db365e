import { Command } from 'commander';

const EXAMPLES = `
Examples:
  isoptic profiles import visits.csv               the fewest profiles for 95 % of the visits
  isoptic profiles import visits.csv --cover 0.8   for 80 % of them

The column of sizes is found by what stands in it (390x844), the others by their names (width, height, ratio, visits);
options name them where that fails. Rows that can not be read are counted and named, and the rest is used.`;

export function importCommand(): Command {
  return new Command('import')
    .description('propose the smallest lineup for the visits of an analytics export')
    .argument('<file>', 'a CSV file with a header')
    .option('--cover <share>', 'share of visits to cover, 0 to 1', '0.95')
    .option('--width-column <name>', 'column of viewport or screen widths, CSS px')
    .option('--height-column <name>', 'column of heights')
    .option('--ratio-column <name>', 'column of device pixel ratios')
    .option('--visits-column <name>', 'column of visits')
    .option('--name <lineup>', 'the name of the proposed lineup', 'visitors')
    .option('--json', 'print JSON')
    .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
    .helpOption('--help', 'print help')
    .addHelpText('after', EXAMPLES)
    .exitOverride()
    .action(async (file: string, _: unknown, command: Command) => {
      const { importVisits } = await import('../import-visits.js');
      // Options that the command above also has are taken by it.
      await importVisits(file, command.optsWithGlobals());
    });
}
