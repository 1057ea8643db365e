import type { FindingRecord } from '../../run/manifest.js';
import { markAnchor } from './model.js';

/** The findings of one page; each names the profiles that show it and jumps to their pictures. */
export function FindingList({ findings, first }: { findings: readonly FindingRecord[]; first: number }) {
  if (findings.length === 0) return <p class="clean">Nothing was found on this page.</p>;
  return (
    <ol class="findings" start={first}>
      {findings.map((finding) => (
        <li key={finding.id} class={finding.severity} id={finding.id}>
          <p class="head">
            <span class="severity">{finding.severity}</span> <span class="rule">{finding.rule}</span>
          </p>
          <p class="selector">
            <code>{finding.selector}</code>
            {finding.words !== '' && !finding.message.includes(finding.words) && ` “${finding.words}”`}
          </p>
          <p class="message">{finding.message}</p>
          {finding.details.length > 0 && (
            <ul class="details">
              {finding.details.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          )}
          {finding.cause && (
            <p class="cause">
              <span class="why">Why:</span> <Quoted text={finding.cause.message} />
              {finding.cause.declaration?.source && (
                <>
                  {' '}
                  <code>{finding.cause.declaration.source}</code>
                </>
              )}
            </p>
          )}
          <ul class="seen">
            {finding.seen.map((seen) => (
              <li key={`${seen.page} ${seen.profile}`}>
                <a href={`#${markAnchor(finding.id, seen)}`} data-finding={finding.id}>
                  {seen.profile}
                  {seen.page !== finding.page && ` on ${seen.page}`}
                  {seen.by && <span class="px"> {Math.round(seen.by.px)} px</span>}
                </a>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ol>
  );
}

/** Text in which what stands between backticks is code. */
function Quoted({ text }: { text: string }) {
  return <>{text.split('`').map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part))}</>;
}
