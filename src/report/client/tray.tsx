import { useEffect, useRef } from 'preact/hooks';
import type { FindingRecord } from '../../run/manifest.js';
import { sizesText, waiverFor, widthsText } from '../view/listing.js';
import { labelsOf } from '../range-labels.js';
import { cropArea } from '../../core/findings/crop-area.js';
import { pictureSize } from '../view/lineup.js';
import { Crop } from './crop.js';
import { data, manifest, numberOf, open, page, renderOf } from './state.js';
import { Sign } from './sign.js';
import { Copy } from './copy.js';
import { Quoted } from './text.js';

/** Room for crops, px. */
const CROP_HEIGHT = 190;
/** A waiver is for a while. */
const WAIVER_DAYS = 90;

/** An opened finding, over the lower third of the wall: its place on every profile in one row, and all that is known of it. */
export function Tray({ finding }: { finding: FindingRecord }) {
  const close = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const body = close.current?.closest('.tray')?.querySelector('.tray-body');
    if (body) body.scrollTop = 0;
  }, [finding.id]);
  return (
    <section class="tray" aria-label={`Finding ${numberOf(finding)}`}>
      <div class="tray-head">
        <h2>
          <Sign mark={finding.severity} /> <span class="number">{numberOf(finding)}</span> {finding.rule}
        </h2>
        <p>{finding.message}</p>
        <button ref={close} class="quiet" onClick={() => open(null)} title="Close (Escape)">
          Close
        </button>
      </div>
      <div class="tray-body">
        <Crops finding={finding} />
        <Known finding={finding} />
      </div>
    </section>
  );
}

function Crops({ finding }: { finding: FindingRecord }) {
  const shown = finding.seen.filter((seen) => seen.page === page.value.id);
  const here = shown.length > 0 ? shown : finding.seen;
  // What shows only where the page is scrolled to is told by pictures that were taken there.
  const pictured = here.filter(({ scrolled, evidence }) => !scrolled || evidence !== undefined);
  const seen = pictured.length > 0 ? pictured : here;
  const { right } = finding;
  const heights = seen.map((each) => {
    const profile = manifest.profiles.find(({ name }) => name === each.profile);
    const render = renderOf(each.page, each.profile);
    return profile && render ? cropArea(each, pictureSize(profile, render)).height : 0;
  });
  // One scale for the whole row: what is larger here is larger there.
  const scale = Math.min(1, CROP_HEIGHT / Math.max(...heights, 1));
  return (
    <div class="crops" role="group" aria-label="On every profile that shows it" tabIndex={0}>
      {seen.map((each) => (
        <Crop key={`${each.page} ${each.profile}`} of={each} scale={scale} />
      ))}
      {right && <Crop of={right} scale={scale} isRight />}
    </div>
  );
}

function Known({ finding }: { finding: FindingRecord }) {
  const { cause } = finding;
  const spans = finding.spans?.[page.value.id];
  const labels = spans ? labelsOf(manifest, page.value.id, spans) : [];
  const until = new Date(Date.now() + WAIVER_DAYS * 86_400_000).toISOString().slice(0, 10);
  return (
    <dl class="known">
      {cause && (
        <>
          <dt>Why</dt>
          <dd>
            <Quoted text={cause.message} />
            {cause.declaration && (
              <pre>
                {cause.declaration.selector ?? 'style'} {'{'} {cause.declaration.property}:{' '}
                {cause.declaration.value} {'}'}
                {cause.declaration.source !== null && <span class="soft"> {cause.declaration.source}</span>}
              </pre>
            )}
            {cause.proven && (
              <p class="soft">Proven: with this undone in the live page, the defect was gone.</p>
            )}
          </dd>
        </>
      )}
      <dt>Where</dt>
      <dd>
        <code>
          <bdi>{finding.selector}</bdi>
        </code>{' '}
        <Copy what="selector" text={finding.selector} />
        {finding.words !== '' && (
          <p class="soft">
            “<bdi>{finding.words}</bdi>”
          </p>
        )}
        {finding.related.length > 0 && (
          <details>
            <summary>{finding.related.length} more elements</summary>
            <ul>
              {finding.related.map((selector) => (
                <li key={selector}>
                  <code>
                    <bdi>{selector}</bdi>
                  </code>
                </li>
              ))}
            </ul>
          </details>
        )}
      </dd>
      {finding.details.length > 0 && (
        <>
          <dt>Each</dt>
          <dd>
            <ul>
              {finding.details.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          </dd>
        </>
      )}
      <dt>Widths</dt>
      <dd>
        {spans ? sizesText(spans) : widthsText(finding, manifest.profiles)}
        {labels.length > 0 && <span class="soft"> · {labels.join(' · ')}</span>}
        {(finding.conditions ?? []).map(({ condition, fails, right }) => (
          <pre key={condition}>
            @media {condition}{' '}
            <span class="soft">
              fails at {fails}, right at {right}
            </span>
          </pre>
        ))}
        {finding.pages.length > 1 && <p class="soft">On {finding.pages.join(', ')}</p>}
      </dd>
      <dt>Id</dt>
      <dd>
        <code>{finding.id}</code> <Copy what="waiver" text={waiverFor(finding, until)} />{' '}
        <Copy what="link" text={location.href} />
        {finding.waived && (
          <p class="soft">
            Waived until {finding.waived.until} by {finding.waived.who}: {finding.waived.reason}
          </p>
        )}
      </dd>
      {data.rules[finding.rule] !== undefined && (
        <dd class="whole-row">
          <details>
            <summary>About the rule {finding.rule}</summary>
            {/* Our own page about the rule, made when the report's program was built. */}
            <div class="rule-page" dangerouslySetInnerHTML={{ __html: data.rules[finding.rule]! }} />
          </details>
        </dd>
      )}
    </dl>
  );
}
