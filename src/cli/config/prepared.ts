import { IsopticError } from '../../core/errors.js';
import { nearestNames } from '../../core/profile/pick.js';
import { statesOf } from '../../engine/steps.js';
import type { ScopedEssential, ScopedPreparation } from '../../run/captures.js';
import type { SignIn } from '../../run/sign-in.js';
import type { Settings } from './load.js';
import type { Secrets } from './secrets.js';
import { toSteps } from './steps.js';

/** The configuration's preparations. @throws IsopticError `bad-config` where two mark the same state */
export async function preparationsOf(settings: Settings, secrets: Secrets): Promise<ScopedPreparation[]> {
  const { config, whereOf } = settings;
  const prepared = await Promise.all(
    config.preparations.map(async ({ name, pages, steps }, i) => ({
      name,
      pages: pages ?? null,
      steps: await toSteps(steps, (step) => whereOf('preparations', i, 'steps', step), secrets),
    })),
  );
  const seen = new Map<string, string>();
  for (const preparation of prepared) {
    for (const state of statesOf(preparation)) {
      const before = seen.get(state);
      if (before !== undefined) {
        throw new IsopticError(
          'bad-config',
          `${whereOf('preparations')}: the state "${state}" is marked in "${before}" and in "${preparation.name}".`,
          'Give each state a name of its own.',
        );
      }
      seen.set(state, preparation.name);
    }
  }
  return prepared;
}

export function essentialsOf({ config }: Settings): ScopedEssential[] {
  return config.essentials.map((essential) =>
    typeof essential === 'string'
      ? { selector: essential, pages: null }
      : { selector: essential.selector, pages: essential.pages ?? null },
  );
}

/** The sign-in of a name. @throws IsopticError `unknown-sign-in` */
export async function signInOf(name: string, settings: Settings, secrets: Secrets): Promise<SignIn> {
  const { config, file, whereOf } = settings;
  const found = config.signIns[name];
  if (!found) {
    const names = Object.keys(config.signIns);
    throw new IsopticError(
      'unknown-sign-in',
      `There is no sign-in named "${name}".`,
      names.length === 0
        ? 'Describe it under "signIns" in the configuration.'
        : `Nearest: ${nearestNames(name, names).join(', ')}.`,
    );
  }
  return {
    name,
    at: found.at,
    keepMs: found.keepHours * 3_600_000,
    scope: file ?? '',
    steps: await toSteps(found.steps, (step) => whereOf('signIns', name, 'steps', step), secrets),
  };
}
