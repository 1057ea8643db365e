import { useEffect, useRef } from 'preact/hooks';
import { sizesText, type Listed } from '../view/listing.js';
import { Sign } from './sign.js';
import { lit, manifest, open, page, view } from './state.js';

/** More spans of widths have no room. */
const MOST_SPANS = 2;

/** One finding in the list: its number as on the panes, what and where, and on how many profiles. */
export function FindingRow({ entry: { finding, number }, withPage }: { entry: Listed; withPage: boolean }) {
  const isOpen = view.value.finding === finding.id;
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isOpen) row.current?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);
  const at = withPage ? finding.page : page.value.id;
  const profiles = new Set(finding.seen.filter((seen) => seen.page === at).map(({ profile }) => profile));
  const spans = finding.spans?.[at];
  return (
    <li ref={row} class={lit.value === finding.id ? 'row lit' : 'row'}>
      <button
        aria-current={isOpen}
        onClick={() => open(isOpen ? null : finding)}
        onMouseEnter={() => (lit.value = finding.id)}
        onMouseLeave={() => (lit.value = null)}
        onFocus={() => (lit.value = finding.id)}
        onBlur={() => (lit.value = null)}
      >
        <span class="row-head">
          <Sign mark={finding.severity} />
          <span class="number">{number}</span>
          <span class="rule">{finding.rule}</span>
          {finding.waived && <span class="tag">waived</span>}
          {spans ? (
            <span class="on" title={`At ${sizesText(spans)}`}>
              {sizesText(spans.slice(0, MOST_SPANS))}
              {spans.length > MOST_SPANS && ' …'}
            </span>
          ) : (
            <span class="on" title={`On ${[...profiles].join(', ')}`}>
              {profiles.size} of {manifest.profiles.length}
            </span>
          )}
        </span>
        <span class="row-text">{finding.message}</span>
        <span class="row-place">
          {withPage && <span>{finding.page} </span>}
          <bdi>{finding.selector}</bdi>
        </span>
      </button>
    </li>
  );
}
