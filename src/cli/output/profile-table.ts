import colors from 'picocolors';
import { DEVICE_CLASSES } from '../../core/profile/device-classes.js';
import type { Device, Profile, Size } from '../../core/profile/profile.js';
import { plainTable } from './plain-table.js';

const TITLES: Readonly<Record<Profile['class'], string>> = {
  phone: 'Phones',
  foldable: 'Foldables',
  tablet: 'Tablets',
  split: 'Windows of a shared tablet screen',
  laptop: 'Laptops',
  desktop: 'Desktops',
  tv: 'Televisions',
  window: 'Windows',
};

const size = (viewport: Size | undefined) => (viewport ? `${viewport.width} × ${viewport.height}` : '–');

/** All profiles, grouped by class; sizes are CSS px of the viewport. */
export function profileTable(profiles: readonly Profile[]): string {
  const rows: (string | number)[][] = [];
  for (const group of DEVICE_CLASSES) {
    const members = profiles.filter((profile) => profile.class === group);
    if (members.length === 0) continue;
    rows.push([`${rows.length > 0 ? '\n' : ''}${colors.cyan(TITLES[group])}`]);
    for (const profile of members) {
      const { portrait, landscape } = profile.viewport;
      rows.push([
        profile.name,
        profile.platform,
        size(portrait),
        size(landscape),
        profile.dpr,
        profile.density ?? '–',
        profile.touchPoints > 0 ? 'yes' : 'no',
      ]);
    }
  }
  const head = ['name', 'platform', 'portrait', 'landscape', 'ratio', 'ppi', 'touch'];
  const full = rows.map((row) => (row.length === 1 ? [...row, '', '', '', '', '', ''] : row));
  return `${plainTable(head, full, ['portrait', 'landscape', 'ratio', 'ppi'])}\n\nSizes are CSS px of the viewport. \`isoptic profiles --show NAME\` gives all of one.`;
}

/** Everything about one profile, for people. */
export function profileDetails(
  profile: Profile,
  device: Device,
  held: readonly Device[],
  query: string,
): string {
  const { agent } = device;
  const insets = ({ top, right, bottom, left }: Device['insets']) => `${top} ${right} ${bottom} ${left}`;
  const facts: [string, string][] = [
    ['class', `${profile.class}, ${profile.platform}`],
    [
      'screen',
      `${size(profile.screen)} px, ratio ${profile.dpr}${profile.density === undefined ? '' : `, ${profile.density} ppi`}`,
    ],
    ['natural', profile.orientation],
    ['touch', profile.touchPoints > 0 ? `${profile.touchPoints} points` : 'none'],
    ['mobile', profile.mobile ? 'viewport meta rules apply' : 'no'],
    ['scroll bars', device.scrollBars === 'overlay' ? 'over the page' : 'beside the page'],
    ...(profile.fold ? [['fold', `${profile.fold.axis}, at ${profile.fold.at} px`] as [string, string]] : []),
    ['user agent', agent.userAgent],
    ['platform', `${agent.navigatorPlatform}, ${agent.vendor}`],
    [
      'client hints',
      agent.hints
        ? `${agent.hints.platform} ${agent.hints.platformVersion}, ${agent.hints.mobile ? 'mobile' : 'not mobile'}`
        : 'none',
    ],
    ['media query', `@media ${query}`],
  ];
  const rows = held.map((each) => [
    each.name,
    size(each),
    `${each.orientationType} ${each.angle}°`,
    insets(each.insets),
  ]);
  return [
    colors.bold(profile.name),
    ...facts.map(([name, text]) => `  ${name.padEnd(13)}${text}`),
    '',
    plainTable(['held', 'viewport', 'orientation', 'insets (top right bottom left)'], rows, ['viewport']),
  ].join('\n');
}
