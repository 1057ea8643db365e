import { isDecoration } from '../../intent/decoration.js';
import { sceneOf } from '../../layout/scene.js';
import { byCulprit, type Culprits } from '../../sightings/by-culprit.js';
import type { NodeIndex } from '../../layout/view.js';
import type { Rule } from '../rule.js';
import type { RenderView, Sighting } from '../../sightings/sighting.js';
import { andMore } from '../../sightings/words.js';

interface Broken {
  readonly url: string;
  readonly culprit: NodeIndex;
}

/**
 * A picture came and is none: the browser can't decode it. One that did not come is missing-resource's. How it measures:
 * docs/rules/picture-broken.md.
 */
export const pictureBroken: Rule = {
  meta: {
    name: 'picture-broken',
    family: 'media',
    severity: 'warning',
    summary: 'a file that stands for a picture can not be shown as one',
  },
  check(render) {
    const { view, delivery } = render;
    const scene = sceneOf(view);
    const missing = new Set(delivery.failures.map(({ url }) => url));
    const broken = view.snapshot.brokenPictures
      .filter(({ node, url }) => scene.painted[node] && !isDecoration(scene, node) && !missing.has(url))
      .map(({ node, url }): Broken => ({ url, culprit: node }));
    return byCulprit(view, broken).map((group) => sighting(render, group));
  },
};

function sighting({ view }: RenderView, { entries, fault }: Culprits<Broken>): Sighting {
  const [{ url }] = entries as [Broken, ...Broken[]];
  const name = url.startsWith('data:') ? 'written into the page' : url.slice(url.lastIndexOf('/') + 1);
  const { more, isMany } = andMore(entries.length - 1);
  return {
    ...fault,
    rect: view.box(fault.node),
    by: null,
    message: `The picture ${name}${more} came, but ${isMany ? 'are no pictures' : 'is no picture'} that the browser can show.`,
  };
}
