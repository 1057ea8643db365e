import { readFile } from 'node:fs/promises';
import { relative } from 'node:path';
import { Command } from 'commander';
import prettyBytes from 'pretty-bytes';
import { IsopticError, messageOf } from '../../core/errors.js';
import { count } from '../../core/geometry/format.js';
import type { BaselineIndex } from '../../run/baseline/index-file.js';
import { Baseline } from '../../run/baseline/store.js';
import type { Chosen } from '../../run/baseline/taken.js';
import { keptRun } from '../../run/compare/kept.js';
import { baselineFolder } from '../compare-inputs.js';
import { loadSettings } from '../config/load.js';

const EXAMPLES = `
Examples:
  isoptic baseline save isoptic-runs/good                 keep a run that later ones are held against
  isoptic check site/ --all --against baseline            fail on what is new only
  isoptic compare baseline isoptic-runs/after             everything that differs
  isoptic baseline take isoptic-runs/after --page fares   take over what is meant, of one page
  isoptic baseline take isoptic-runs/after --list meant.txt
  isoptic baseline show                                   what is kept, branch by branch
  isoptic baseline drop                                   the one of this branch goes

A branch has a baseline of its own once something was saved or taken on it; until then it goes by that of main.`;

interface Options {
  readonly baseline?: string;
  readonly branch?: string;
  readonly config?: string;
  readonly page: string[];
  readonly profile: string[];
  readonly list?: string;
  readonly json?: boolean;
}

const collected = (value: string, before: string[]) => [...before, ...value.split(',')];

export function baselineCommand(): Command {
  const command = new Command('baseline').addHelpText('after', EXAMPLES);
  const verb = (name: string, does: string) =>
    command
      .command(name)
      .description(does)
      .option('--baseline <folder>', 'where it lies (default: isoptic-baseline)')
      .option('--branch <name>', 'the branch that is meant (default: the one that is checked out)')
      .option('--config <file>', 'the configuration (default: isoptic.yaml, here or above)')
      .helpOption('--help', 'print help')
      .exitOverride()
      .showHelpAfterError('Run with --help to see how it is used.');
  verb('save', 'keep a whole run: pictures, layouts and findings')
    .argument('<run>', 'the folder that a check wrote')
    .action(async (run: string, options: Options) => {
      const baseline = await opened(options);
      const index = await baseline.save(await keptRun(run));
      say(
        `Kept ${told(index)} as the baseline of ${baseline.branch}, in ${shown(baseline)} (${prettyBytes(await baseline.bytes())}).`,
      );
      sayWithout(index);
    });
  verb('take', 'take over what is meant: all of a run, or some pages and profiles of it')
    .argument('<run>', 'the folder that a check wrote')
    .option('--page <id>', 'this page only (repeatable)', collected, [])
    .option('--profile <name>', 'this profile only (repeatable)', collected, [])
    .option(
      '--list <file>',
      'these renders, a line each: PAGE PROFILE, as the view of a comparison copies them',
    )
    .action(async (run: string, options: Options) => {
      const chosen = await chosenBy(options);
      const baseline = await opened(options);
      const { taken, index } = await baseline.take(await keptRun(run), chosen);
      if (taken === 0) {
        throw new IsopticError(
          'nothing-taken',
          `${run}: it has none of the renders that were named.`,
          `It can give pages and profiles as \`isoptic baseline show\` names them.`,
        );
      }
      say(`Took over ${count(taken, 'render')}; the baseline of ${baseline.branch} has ${told(index)}.`);
    });
  verb('show', 'what is kept, branch by branch')
    .option('--json', 'print it as JSON')
    .action(async (options: Options) => {
      const baseline = await opened(options);
      const indexes = await Promise.all(
        (await baseline.branches()).map(async (branch) => ({
          branch,
          index: (await baseline.readOf(branch))!,
        })),
      );
      if (options.json === true) return say(JSON.stringify(indexes.map(asJson), null, 2));
      if (indexes.length === 0) return say(`There is no baseline in ${shown(baseline)}.`);
      for (const { branch, index } of indexes) say(shownText(branch, index, branch === baseline.branch));
      say(`${shown(baseline)}, ${prettyBytes(await baseline.bytes())}`);
    });
  verb('drop', 'remove the baseline of this branch, and what only it holds').action(
    async (options: Options) => {
      const baseline = await opened(options);
      const was = await baseline.drop();
      say(
        was
          ? `Dropped the baseline of ${baseline.branch}.`
          : `${baseline.branch} has no baseline of its own.`,
      );
    },
  );
  return command;
}

const say = (text: string) => void process.stdout.write(`${text}\n`);

async function opened({ baseline, branch, config }: Options): Promise<Baseline> {
  const settings = await loadSettings(config);
  return Baseline.open(baselineFolder(baseline, settings.config), branch);
}

function shown({ folder }: Baseline): string {
  return relative(process.cwd(), folder) || '.';
}

function told({ run, findings }: BaselineIndex): string {
  return `${count(run.pages.length, 'page')} on ${count(run.profiles.length, 'profile')}, ${count(findings.length, 'finding')}`;
}

function sayWithout({ objects }: BaselineIndex): void {
  const without = objects.filter(({ layout }) => layout === null).length;
  if (without > 0)
    say(
      `${count(without, 'render')} of it ${without === 1 ? 'has' : 'have'} no layout: of these only pictures and findings can be compared.`,
    );
}

function shownText(branch: string, index: BaselineIndex, isCurrent: boolean): string {
  const { savedAt, run, findings } = index;
  const lines = [
    `${branch}${isCurrent ? '  (this branch)' : ''}`,
    `  saved ${savedAt.slice(0, 16).replace('T', ' ')} UTC with ${run.engine.name} ${run.engine.version}`,
    `  pages     ${run.pages.map(({ id }) => id).join(', ')}`,
    `  profiles  ${run.profiles.map(({ name }) => name).join(', ')}`,
    `  findings  ${findings.length}`,
  ];
  return `${lines.join('\n')}\n`;
}

function asJson({ branch, index }: { readonly branch: string; readonly index: BaselineIndex }) {
  const { savedAt, run, findings } = index;
  return {
    branch,
    savedAt,
    engine: run.engine,
    pages: run.pages.map(({ id }) => id),
    profiles: run.profiles.map(({ name }) => name),
    findings: findings.length,
  };
}

async function chosenBy({ page, profile, list }: Options): Promise<Chosen> {
  if (list === undefined) return { pages: page, profiles: profile, renders: [] };
  const text = await readFile(list, 'utf8').catch((error: unknown) => {
    throw new IsopticError(
      'bad-list',
      `--list ${list}: can not be read (${messageOf(error)}).`,
      'Name a file with a render a line: PAGE PROFILE.',
    );
  });
  const renders = text.split(/\r?\n/).flatMap((line, at) => {
    const said = line.trim();
    if (said === '' || said.startsWith('#')) return [];
    const [id, name, more] = said.split(/\s+/);
    if (id === undefined || name === undefined || more !== undefined) {
      throw new IsopticError(
        'bad-list',
        `${list}:${at + 1}: "${said}" is no render.`,
        'Write the page and the profile, with a space between.',
      );
    }
    return [{ page: id, profile: name }];
  });
  return { pages: page, profiles: profile, renders };
}
