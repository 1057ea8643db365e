import { NO_DELIVERY } from '../../src/core/delivery/delivery.js';
import type { Device } from '../../src/core/profile/profile.js';
import type { Rule } from '../../src/core/rules/rule.js';
import type { RenderView, Sighting } from '../../src/core/sightings/sighting.js';
import { deviceOf } from './device.js';
import { viewOf, type Node, type PageOptions } from './snapshot.js';

/** A render of `html > body > children`, made by hand. */
export function renderOf(
  options: PageOptions,
  children: readonly Node[],
  page = 'home',
  device: Partial<Device> = {},
): RenderView {
  const view = viewOf(options, children);
  return {
    page,
    device: { ...deviceOf(options.width), ...device },
    view,
    httpStatus: 200,
    delivery: NO_DELIVERY,
    essentials: [],
  };
}

/** What a rule sees on such a render: the element at fault, by id or tag, the px and the axis. */
export function seenBy(
  rule: Rule,
  options: PageOptions,
  children: readonly Node[],
  device: Partial<Device> = {},
): string[] {
  const render = renderOf(options, children, 'home', device);
  return rule.check(render).map((sighting) => describe(render, sighting));
}

function describe({ view }: RenderView, { node, by }: Sighting): string {
  const name = view.id(node) === '' ? view.tag(node) : `#${view.id(node)}`;
  return by ? `${name} ${by.axis} ${Math.round(by.px)}` : name;
}

/** A line of text of 16 px type, whose letters reach from 3 to 16 px below `y`. */
export function line(x: number, y: number, width: number, text = 'Boats of the day') {
  return { box: [x, y, width, 19] as const, text };
}

export const CARD = { 'background-color': 'rgb(230, 240, 255)' };
export const WHITE = { 'background-color': 'rgb(255, 255, 255)' };

/** A phone: touch, and mobile viewport rules. */
export const PHONE = { mobile: true, touchPoints: 5, dpr: 2 };
