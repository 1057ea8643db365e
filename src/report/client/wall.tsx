import { useComputed, useSignal } from '@preact/signals';
import { useEffect, useLayoutEffect, useRef } from 'preact/hooks';
import { showAt, toTop, resettle } from './follow.js';
import { Pane } from './pane.js';
import { GAP, PANE_HEAD, paneBoxes, room, STRIP, wallWidth } from './room.js';
import { groups, lit, manifest, opened, page, view } from './state.js';
import type { FindingRecord } from '../../run/manifest.js';
import { setWall, zoomBy } from './zooming.js';
import { CmRuler } from './cm-ruler.js';
import { WidthRuler } from './width-ruler.js';

/** Room for the names of the classes over the panes, and for the scroll bar under them. */
const AROUND = 56;
/** Panes so far out of sight are there already when they come, px. */
const AHEAD = 400;

/** All profiles of the page side by side. Only those in sight, or nearly, are there. */
export function Wall() {
  const element = useRef<HTMLDivElement>(null);
  const left = useSignal(0);
  const width = useSignal(0);
  useLayoutEffect(() => {
    const wall = element.current!;
    setWall(wall);
    const measure = () => {
      width.value = wall.clientWidth;
      room.value = {
        width: Math.max(120, wall.clientWidth - 2 * GAP - STRIP),
        height: Math.max(120, wall.clientHeight - PANE_HEAD - AROUND),
        ratio: devicePixelRatio,
      };
      requestAnimationFrame(resettle);
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(wall);
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      zoomBy(event.deltaY < 0 ? 1.1 : 1 / 1.1, event.clientX - wall.getBoundingClientRect().left);
    };
    wall.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      observer.disconnect();
      wall.removeEventListener('wheel', onWheel);
      setWall(null);
    };
  }, []);
  const { id } = page.value;
  const isFirst = useRef(true);
  useEffect(() => {
    if (!isFirst.current) toTop();
    isFirst.current = false;
  }, [id]);
  const shown = useComputed(() =>
    paneBoxes.value.filter(
      (box) => box.left + box.outer > left.value - AHEAD && box.left < left.value + width.value + AHEAD,
    ),
  );
  const finding = opened.value;
  useEffect(() => {
    if (!finding) return;
    // Once the wall has measured itself and its panes are drawn.
    const frame = requestAnimationFrame(() =>
      requestAnimationFrame(() => bringIntoView(finding, element.current)),
    );
    return () => cancelAnimationFrame(frame);
  }, [finding?.id, id]);
  return (
    <main class="wall-area">
      <div
        ref={element}
        class="wall"
        id="wall"
        role="region"
        aria-label={`${page.value.source} on every profile`}
        tabIndex={-1}
        onScroll={() => (left.value = element.current!.scrollLeft)}
        onMouseLeave={() => (lit.value = null)}
      >
        <div class="track" style={{ width: wallWidth.value }}>
          <GroupNames />
          <LayoutBands />
          {shown.value.map((box) => (
            <Pane key={`${id} ${box.profile.name}`} box={box} />
          ))}
        </div>
      </div>
      <WidthRuler />
      {view.value.scale === 'true' && <CmRuler />}
    </main>
  );
}

/** Where a finding is worst, unless a pane that shows it is in sight already; there at a height at which an open tray leaves it free. */
function bringIntoView(finding: FindingRecord, wall: HTMLElement | null): void {
  if (!wall) return;
  const boxes = new Map(paneBoxes.value.map((box) => [box.profile.name, box]));
  const isInSight = (name: string) => {
    const { left, outer } = boxes.get(name)!;
    return left >= wall.scrollLeft && left + outer <= wall.scrollLeft + wall.clientWidth;
  };
  const here = finding.seen
    .filter((seen) => seen.page === page.value.id && boxes.has(seen.profile))
    .sort((a, b) => (b.by?.px ?? 0) - (a.by?.px ?? 0));
  const target = here.find(({ profile }) => isInSight(profile)) ?? here[0];
  if (!target) return;
  if (!isInSight(target.profile)) wall.scrollLeft = Math.max(0, boxes.get(target.profile)!.left - GAP);
  requestAnimationFrame(() => showAt(target.profile, (target.lost?.[0] ?? target.rect).y, 0.2));
}

/** Over panes beside one another that show one layout, a band; what sets it apart is in its title. */
function LayoutBands() {
  const layouts = manifest.layouts?.find((each) => each.page === page.value.id)?.groups ?? [];
  if (layouts.length < 2) return null;
  const groupOf = (name: string) => layouts.findIndex(({ profiles }) => profiles.includes(name));
  const bands: { group: number; left: number; right: number; key: string }[] = [];
  for (const { profile, left, outer } of paneBoxes.value) {
    const group = groupOf(profile.name);
    if (group < 0) continue;
    const last = bands.at(-1);
    if (last?.group === group) last.right = left + outer;
    else bands.push({ group, left, right: left + outer, key: profile.name });
  }
  return (
    <>
      {bands.map(({ group, left, right, key }) => {
        const { apart, differences, profiles } = layouts[group]!;
        const text =
          group === 0
            ? `Layout 1 of ${layouts.length}, that of most profiles (${profiles.length})`
            : `Layout ${group + 1} of ${layouts.length}; it differs from the first in ${differences}: ${apart.join('; ')}${differences > apart.length ? '; …' : ''}`;
        return (
          <span
            key={key}
            class={`layout-over layout-${group % 4}`}
            style={{ left, width: right - left }}
            title={text}
            role="img"
            aria-label={text}
          >
            <span>{group + 1}</span>
          </span>
        );
      })}
    </>
  );
}

/** The name of each class over its first pane. */
function GroupNames() {
  const byName = new Map(paneBoxes.value.map((box) => [box.profile.name, box]));
  return (
    <>
      {groups.value.map(({ name, profiles }) => {
        const first = byName.get(profiles[0]!.name);
        const last = byName.get(profiles.at(-1)!.name);
        if (!first || !last) return null;
        return (
          <h2
            key={name}
            class="class-name"
            style={{ left: first.left, width: last.left + last.outer - first.left }}
          >
            <span>
              {name} {profiles.length}
            </span>
          </h2>
        );
      })}
    </>
  );
}
