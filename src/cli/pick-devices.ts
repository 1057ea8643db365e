import { mergeConditions } from '../core/profile/conditions.js';
import { pickDevices, type Pick } from '../core/profile/pick.js';
import type { Device } from '../core/profile/profile.js';
import type { ConditionSet } from './condition-options.js';
import { withNetwork, type Settings } from './config/load.js';

/**
 * The devices of a command: what was picked or else the default lineup, under the configuration's conditions and those
 * of the command line. With two colour schemes every device comes twice, the second named `NAME+dark`.
 */
export function devicesFor(
  picks: readonly Pick[],
  turn: boolean,
  asked: ConditionSet,
  settings: Settings,
): Device[] {
  const { config, catalogue } = settings;
  const chosen = picks.length > 0 ? picks : [{ lineup: config.defaultLineup ?? 'default' }];
  const sets = asked.map((conditions) => {
    const merged = withNetwork(mergeConditions(config.conditions, conditions), config);
    return pickDevices(chosen, catalogue, { turn, conditions: merged }).map((device) => ({
      ...device,
      conditions: withNetwork(device.conditions, config),
    }));
  });
  if (sets.length === 1) return sets[0]!;
  return sets[0]!.flatMap((device, i) => [device, { ...sets[1]![i]!, name: `${device.name}+dark` }]);
}
