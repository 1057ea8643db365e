import { step } from '../../identity/names.js';
import { likeness } from '../../identity/signature.js';
import { cut } from '../../layout/clips.js';
import { sceneOf, type Scene } from '../../layout/scene.js';
import { FLAG_ARIA_HIDDEN, FLAG_CONTROL, FLAG_PAGE_LINK, FLAG_TEXT } from '../../layout/snapshot.js';
import type { NodeIndex, SnapshotView } from '../../layout/view.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import { onScreen } from '../../sightings/words.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';

interface Reveal {
  readonly culprit: NodeIndex;
  readonly hovered: NodeIndex;
  readonly controls: number;
}

/**
 * On touch screens, where nothing hovers: content that only a `:hover` rule brings out. How it measures and what it leaves
 * alone: docs/rules/hover-only.md.
 */
export const hoverOnly: Rule = {
  meta: {
    name: 'hover-only',
    family: 'touch',
    severity: 'notice',
    summary: 'content is shown on hovering only, on a screen where nothing hovers',
  },
  check(render) {
    if (render.device.touchPoints === 0) return [];
    const scene = sceneOf(render.view);
    const { hoverReveals } = render.view.snapshot;
    const reveals: Reveal[] = [];
    for (let at = 0; at < hoverReveals.length; at += 2) {
      const reveal = revealOf(scene, hoverReveals[at]!, hoverReveals[at + 1]!);
      if (reveal) reveals.push(reveal);
    }
    return byCulprit(render.view, reveals, lookOf).map((group) => sighting(render, group));
  },
};

function revealOf(scene: Scene, shown: NodeIndex, hovered: NodeIndex): Reveal | null {
  const { view, clips } = scene;
  if (isPermalink(scene, shown)) return null;
  if (!scene.painted[hovered] || !cut(view.box(hovered), clips.shownBox(hovered))) return null;
  let controls = 0;
  let words = 0;
  for (let at = shown; at <= scene.lastOf(shown); at++) {
    if (view.has(at, FLAG_ARIA_HIDDEN)) continue;
    if (view.has(at, FLAG_CONTROL)) controls++;
    if (view.has(at, FLAG_TEXT)) words++;
  }
  return words + controls > 0 ? { culprit: shown, hovered, controls } : null;
}

/** One rule of a style sheet shows all of a class, wherever they stand. */
function lookOf(view: SnapshotView, i: NodeIndex): string {
  return view.classes(i).length === 0 ? likeness(view, i) : step(view, i);
}

/** A sign beside a heading that leads to the heading itself: for those who want its address. */
function isPermalink(scene: Scene, shown: NodeIndex): boolean {
  const { view } = scene;
  if (!view.has(shown, FLAG_PAGE_LINK)) return false;
  for (let at = shown; at <= scene.lastOf(shown); at++)
    if (view.linesOf(at).some((line) => view.lineText(line).length > 2)) return false;
  return true;
}

function sighting(render: RenderView, { entries, fault }: Culprits<Reveal>): Sighting {
  const { view } = render;
  const controls = entries.reduce((sum, entry) => sum + entry.controls, 0);
  const what = controls === 0 ? 'text' : controls === 1 ? 'a control' : `${controls} controls`;
  return {
    ...fault,
    partners: entries.map(({ hovered }) => hovered),
    rect: view.box(entries[0]!.hovered),
    by: null,
    // Text is a hint; what is there to be used is lost.
    ...(controls > 0 && { severity: 'warning' as const }),
    message: `Holds ${what} that only hovering over ${view.tag(entries[0]!.hovered)} shows; nothing hovers ${onScreen(render)}.`,
  };
}
