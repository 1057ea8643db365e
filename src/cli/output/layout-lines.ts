import colors from 'picocolors';
import { count } from '../../core/geometry/format.js';
import { pageNames } from '../../report/page-name.js';
import { profileNames } from '../../report/profile-names.js';
import type { Manifest } from '../../run/manifest.js';
import { plainText, wrapped } from './wrapped.js';

/** Of what sets a layout apart, so many sentences where there is one page. */
const MOST_TOLD = 3;

type Layouts = NonNullable<Manifest['layouts']>[number];

/** Which profiles show one layout: pages that are alike in that are told together. */
export function layoutLines(manifest: Manifest, columns: number): string[] {
  const { layouts = [], pages } = manifest;
  const alike = new Map<string, Layouts[]>();
  for (const each of layouts) {
    const key = each.groups.map(({ profiles }) => profiles.join()).join('|');
    alike.set(key, [...(alike.get(key) ?? []), each]);
  }
  if ([...alike.values()].every(([first]) => first!.groups.length < 2)) return [];
  const names = pageNames(manifest);
  const lines = [...alike.values()].flatMap((group) => {
    const where =
      group.length === pages.length && pages.length > 1
        ? `all ${pages.length} pages`
        : group.map(({ page }) => plainText(names.get(page) ?? page)).join(', ');
    const [first] = group as [Layouts];
    return [
      ...wrapped('  ', `${where}  ${colors.dim(count(first.groups.length, 'layout'))}`, columns),
      ...first.groups.flatMap((layout, i) => groupLines(layout, i, group.length === 1, columns)),
    ];
  });
  return ['Layouts', ...lines];
}

function groupLines(
  { profiles, apart, differences }: Layouts['groups'][number],
  i: number,
  isOnePage: boolean,
  columns: number,
): string[] {
  const what = profileNames(profiles.map((name) => ({ name })));
  const apartText =
    i === 0 || !isOnePage
      ? ''
      : `: ${apart.slice(0, MOST_TOLD).map(plainText).join('; ')}${differences > MOST_TOLD ? ` and ${differences - MOST_TOLD} more` : ''}`;
  return wrapped(`    ${i + 1}  `, `${what}${colors.dim(apartText)}`, columns);
}
