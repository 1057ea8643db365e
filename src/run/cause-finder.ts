import type { Cause, CauseName } from '../core/cause/cause.js';
import type { Suspect } from '../core/cause/suspect.js';
import { suspectsOf } from '../core/cause/suspects.js';
import type { Reported } from '../core/findings/consequences.js';
import { keyOf, type Judge } from '../core/findings/judge.js';
import { signature } from '../core/identity/signature.js';
import { SelectorWriter } from '../core/identity/selector.js';
import type { LayoutSnapshot } from '../core/layout/snapshot.js';
import { SnapshotView } from '../core/layout/view.js';
import { LAYOUT_FAMILIES, type Rule } from '../core/rules/rule.js';
import { type RenderView, type Sighting } from '../core/sightings/sighting.js';
import { capital } from '../core/sightings/words.js';
import type { LayoutChange, Probe } from '../engine/probe.js';
import { mediaCause, viewportCause } from './page-causes.js';
import { ExperimentBudget } from './experiment-budget.js';
import type { Trial } from './trial.js';
import { InOrder } from './in-order.js';

/** How long a render waits for those before it in the plan, so that it is always the first of them that is experimented on. */
const ORDER_MS = 15_000;
/** Of a larger page each experiment would take seconds. */
const MOST_ELEMENTS = 15_000;
/** A defect of which so much is left, by another element, is not gone. */
const STILL_THERE = 0.8;
/** Of the likeliest suspects, two together are tried when none is enough alone. */
const MOST_IN_PAIRS = 5;

/**
 * Finds out why the defects of one state of a page are there, each on the first render of the plan that shows it,
 * whichever render comes back first.
 */
export class CauseFinder {
  /** By the key of the defect (`keyOf`). */
  readonly causes = new Map<string, Cause>();
  private readonly claimed = new Set<string>();
  private readonly inOrder: InOrder;

  /** @param count renders of the plan */
  constructor(
    private readonly judge: Judge,
    count: number,
  ) {
    this.inOrder = new InOrder(count);
  }

  /** @param place of the render in the plan */
  async investigate(place: number, render: RenderView, probe: Probe): Promise<void> {
    if (render.view.count > MOST_ELEMENTS) {
      this.pass(place);
      return;
    }
    const sightings = this.judge
      .judge(render)
      .filter(({ rule }) => LAYOUT_FAMILIES.includes(rule.meta.family));
    await this.inOrder.before(place, ORDER_MS);
    const budget = new ExperimentBudget(render.view.count);
    const mine = this.claim(sightings, budget.defects);
    this.pass(place);
    const layoutWith = (change: LayoutChange) => {
      budget.take();
      return probe.layoutWith(change);
    };
    const isSpent = () => budget.isSpent();
    const writer = new SelectorWriter(render.view);
    const open = new Set(mine.map(({ rule, sighting }) => keyOf(rule, sighting)));
    try {
      for (const { rule, sighting } of mine) {
        if (budget.isGivenUp()) break;
        const key = keyOf(rule, sighting);
        const isGone = this.goneIn(render, rule, sighting);
        const cause = await causeOf({ render, rule, sighting, probe, writer, layoutWith, isGone, isSpent });
        if (cause) this.causes.set(key, cause);
        open.delete(key);
      }
    } finally {
      // What was not looked into here, because page or browser went away or is too slow, a later render that shows it may.
      for (const key of open) this.claimed.delete(key);
    }
  }

  /** Whether a defect is not there any more in another layout of the same page. */
  private goneIn(render: RenderView, rule: Rule, sighting: Sighting): (layout: LayoutSnapshot) => boolean {
    const before = new Set(this.judge.sightings(rule, render).map(({ key }) => key));
    const uid = render.view.uid(sighting.node);
    // What is still there under the name of another element has only moved.
    const isMoved = (other: Sighting) =>
      !before.has(other.key) &&
      other.by?.axis === sighting.by?.axis &&
      (other.by?.px ?? 0) >= STILL_THERE * (sighting.by?.px ?? Infinity);
    const { looks } = render.view.snapshot;
    return (layout) => {
      // What pixels showed of a spot holds for as long as boxes still meet there.
      const view = new SnapshotView({ ...layout, ...(looks && { looks }) });
      return !rule
        .check({ ...render, view })
        .some((other) => other.key === sighting.key || view.uid(other.node) === uid || isMoved(other));
    };
  }

  /** Says that a render has nothing more to claim: it is through, or it failed. */
  pass(place: number): void {
    this.inOrder.pass(place);
  }

  /** Those of the defects, as many as a render can get through, that no render before it has claimed. */
  private claim(judged: readonly Reported[], most: number): Reported[] {
    const mine: Reported[] = [];
    for (const each of judged) {
      const key = keyOf(each.rule, each.sighting);
      if (this.claimed.has(key)) continue;
      if (mine.length >= most) break;
      this.claimed.add(key);
      mine.push(each);
    }
    return mine;
  }
}

async function causeOf(trial: Trial): Promise<Cause | null> {
  const { render, sighting, layoutWith, isGone, isSpent } = trial;
  const suspects = suspectsOf(render.view, sighting);
  const absent = sighting.node === render.view.root ? await viewportCause(trial) : await mediaCause(trial);
  if (absent) return (await ownCause(trial, suspects, absent)) ?? absent;
  for (const suspect of suspects) {
    if (isSpent()) return null;
    const layout = await layoutWith({
      styles: [{ uids: sharersOf(render.view, suspect, sighting), styles: suspect.undo }],
    });
    if (isGone(layout)) return causeBy(trial, [suspect]);
  }
  const likely = suspects.slice(0, MOST_IN_PAIRS);
  for (const [at, first] of likely.entries()) {
    for (const second of likely.slice(at + 1)) {
      if (isSpent()) return null;
      const both = [first, second];
      const styles = both.map((suspect) => ({
        uids: sharersOf(render.view, suspect, sighting),
        styles: suspect.undo,
      }));
      if (isGone(await layoutWith({ styles }))) return causeBy(trial, both);
    }
  }
  return null;
}

/** Values that an element has for itself. */
const OWN: readonly CauseName[] = [
  'fixed-width',
  'min-width',
  'fixed-height',
  'negative-margin',
  'offset',
  'line-height',
];

/**
 * What a media query would mend by the way has a nearer cause, where a value of the element's own is enough to explain it
 * and the query says nothing of that.
 */
async function ownCause(trial: Trial, suspects: readonly Suspect[], absent: Cause): Promise<Cause | null> {
  const { render, sighting, layoutWith, isGone, isSpent } = trial;
  const own = suspects.filter(
    ({ name, node, property }) =>
      node === sighting.node && OWN.includes(name) && !absent.declaration?.property.startsWith(property),
  );
  for (const suspect of own) {
    if (isSpent()) return null;
    const styles = [{ uids: sharersOf(render.view, suspect, sighting), styles: suspect.undo }];
    if (isGone(await layoutWith({ styles }))) return causeBy(trial, [suspect]);
  }
  return null;
}

/** The uids of an element and of repeated siblings that have the same values: they share their declaration. */
function sharersOf(view: SnapshotView, { node, undo }: Suspect, sighting: Sighting): number[] {
  const shared = signature(view, node);
  const properties = Object.keys(undo) as Parameters<SnapshotView['style']>[1][];
  const siblings = view
    .childrenOf(view.parent(node))
    .filter((at) => signature(view, at) === shared)
    .filter((at) => properties.every((property) => view.style(at, property) === view.style(node, property)));
  const all = new Set([node, ...siblings, ...(node === sighting.node ? sighting.related : [])]);
  return [...all].map((at) => view.uid(at));
}

/** What was proven, told by the first of the declarations that had to be undone. */
async function causeBy({ render, probe, writer }: Trial, suspects: readonly Suspect[]): Promise<Cause> {
  const [suspect] = suspects as [Suspect, ...Suspect[]];
  const { view } = render;
  const declarationOf = ({ node, property }: Suspect) =>
    probe.declarationOf(
      view.uid(node),
      property,
      view.isElement(node) ? null : view.tag(node) === '::after' ? 'after' : 'before',
    );
  const declaration = await declarationOf(suspect);
  const proofs: string[] = [];
  for (const each of suspects) {
    const written = each === suspect ? declaration : await declarationOf(each);
    const [other = ''] = Object.entries(each.undo).map((pair) => pair.join(': '));
    proofs.push(
      written === null || each.puts
        ? `with \`${other}\``
        : `without \`${written.property}: ${written.value}\``,
    );
  }
  // A width that is written in parts of the window is another mistake than one in px.
  const isOfWindow = /\d(vw|dvw|svw|lvw)\b/.test(declaration?.value ?? '');
  return {
    name: suspect.name === 'fixed-width' && isOfWindow ? 'viewport-width' : suspect.name,
    message: `${capital(suspects.map(({ says }) => says).join(', and '))}; gone ${proofs.join(' and ')}.`,
    selector: writer.write(view.isElement(suspect.node) ? suspect.node : view.parent(suspect.node)),
    declaration,
    proven: true,
  };
}
