import type { SnapshotView } from '../layout/view.js';
import { FONT_SET, GENERIC_FAMILIES, type FontSetName } from './font-sets.js';

/** How a family that text asks for was answered, where that is not what the device would show. */
export interface StandIn {
  readonly family: string;
  /** `device`: the device has it, this machine has the nearest; `unknown`: neither the page nor the device has it. */
  readonly kind: 'device' | 'unknown';
  /** What the text was laid out with instead, where that is known. */
  readonly font: string | null;
}

/** `ui` is only a stand-in where the platform's own font is not free. */
const UI_IS_EXACT: Readonly<Record<FontSetName, boolean>> = {
  apple: false,
  android: true,
  windows: false,
  linux: true,
};

/**
 * Which families of the page's text were laid out with a stand-in.
 * @param lists computed font-family lists of elements that hold text
 * @param pageFamilies families that the page brings itself and that have loaded
 */
export function standIns(
  lists: Iterable<string>,
  pageFamilies: ReadonlySet<string>,
  set: FontSetName,
): StandIn[] {
  const found = new Map<string, StandIn>();
  const platform = FONT_SET[set];
  const everywhere = new Set(
    Object.values(FONT_SET).flatMap((other) =>
      [...Object.keys(other.exact), ...Object.keys(other.standIns)].map(lower),
    ),
  );
  const exact = new Set(Object.keys(platform.exact).map(lower));
  const nearest = new Map(Object.entries(platform.standIns).map(([family, font]) => [lower(family), font]));
  const own = new Set([...pageFamilies].map(lower));
  for (const list of lists) {
    for (const family of parseFamilies(list)) {
      const name = lower(family);
      if (own.has(name) || exact.has(name)) break;
      const font = nearest.get(name);
      if (font !== undefined) {
        found.set(name, { family, kind: 'device', font });
        break;
      }
      if ((GENERIC_FAMILIES as readonly string[]).includes(name)) {
        if (/^(system-ui|ui-sans-serif)$/.test(name) && !UI_IS_EXACT[set]) {
          found.set(name, { family, kind: 'device', font: platform.ui });
        }
        break;
      }
      // Another platform's family is passed over here as on the device; any other was meant to come with the page.
      if (!everywhere.has(name)) found.set(name, { family, kind: 'unknown', font: null });
    }
  }
  return [...found.values()].sort((a, b) => a.family.localeCompare(b.family));
}

function lower(text: string): string {
  return text.toLowerCase();
}

/** The names of a font-family list as `getComputedStyle` writes it. */
export function parseFamilies(list: string): string[] {
  return [...list.matchAll(/\s*(?:"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'|([^,]+))/g)]
    .map((match) => (match[1] ?? match[2] ?? match[3] ?? '').replace(/\\(.)/g, '$1').trim())
    .filter((family) => family !== '');
}

/** The same for a whole page: over the font lists of all elements that hold visible text. */
export function standInsOf(view: SnapshotView, set: FontSetName): StandIn[] {
  const lists = new Set<string>();
  const { count, node } = view.snapshot.lines;
  for (let line = 0; line < count; line++) lists.add(view.style(node[line]!, 'font-family'));
  return standIns(lists, new Set(view.snapshot.pageFonts), set);
}
