import * as z from 'zod/mini';
import { SCALES } from './scale.js';

/**
 * What the reader looks at, as it stands in the address after `#`: every view has a link that can be sent. What is not said
 * there is as in `FIRST_VIEW`; what is said wrong is as if it were not said.
 */
const words = z.array(z.string());

export const viewSchema = z.object({
  /** The page's id; empty for the first one. */
  page: z.string(),
  /** The opened finding's id; empty for none. */
  finding: z.string(),
  scale: z.enum(SCALES),
  zoom: z.number().check(z.minimum(0.1), z.maximum(8)),
  /** Whether scrolling one pane brings the others to the same place. */
  together: z.boolean(),
  /** Which way of holding is shown where a device was rendered both ways. */
  held: z.enum(['both', 'portrait', 'landscape']),
  scheme: z.enum(['both', 'light', 'dark']),
  /** Where the handle stands on the ruler, CSS px; 0 where nobody took it. */
  width: z.number().check(z.minimum(0), z.maximum(100_000)),
  drawer: z.boolean(),
  /** What is searched for, in everything. */
  search: z.string(),
  sort: z.enum(['harm', 'place']),
  /** Severities, rules, families and profiles that are left out or asked for; none: all. */
  without: words,
  rules: words,
  families: words,
  profiles: words,
  waived: z.boolean(),
  /** Against an earlier run: what it had not, or had already. */
  age: z.enum(['all', 'new', 'known']),
  /** The wall, or everything one after another to be printed. */
  as: z.enum(['wall', 'print']),
});

export type View = z.infer<typeof viewSchema>;

export const FIRST_VIEW: View = {
  page: '',
  finding: '',
  scale: 'fit',
  zoom: 1,
  together: true,
  held: 'both',
  scheme: 'both',
  width: 0,
  drawer: true,
  search: '',
  sort: 'harm',
  without: [],
  rules: [],
  families: [],
  profiles: [],
  waived: false,
  age: 'all',
  as: 'wall',
};

type Key = keyof View;
const KEYS = Object.keys(FIRST_VIEW) as Key[];

/** The part after `#`, without it. */
export function addressOf(view: View): string {
  const said = new URLSearchParams();
  for (const key of KEYS) {
    const value = view[key];
    const text = Array.isArray(value) ? value.join(',') : String(value);
    const first = FIRST_VIEW[key];
    if (text !== (Array.isArray(first) ? first.join(',') : String(first))) said.set(key, text);
  }
  return said.toString();
}

export function viewOf(address: string): View {
  const said = new URLSearchParams(address);
  const view: Record<string, unknown> = { ...FIRST_VIEW };
  for (const key of KEYS) {
    const text = said.get(key);
    if (text === null) continue;
    const read = viewSchema.shape[key].safeParse(valueOf(FIRST_VIEW[key], text));
    if (read.success) view[key] = read.data;
  }
  return view as View;
}

/** Read as what stands there at first. */
function valueOf(first: View[Key], text: string): unknown {
  if (Array.isArray(first)) return text.split(',').filter((word) => word !== '');
  if (typeof first === 'number') return Number(text);
  if (typeof first === 'boolean') return text === 'true' ? true : text === 'false' ? false : text;
  return text;
}
