import { mmPerPx } from '../view/scale.js';
import { Dialog } from './dialog.js';
import { manifest, page, renderOf, sheet } from './state.js';
import { timeText } from './text.js';

const MOST_LISTED = 40;

/** What a profile is, how its render went and what was delivered for it. */
export function Facts({ profile: name }: { profile: string }) {
  const profile = manifest.profiles.find((each) => each.name === name);
  const render = renderOf(page.value.id, name);
  if (!profile) return null;
  const mm = mmPerPx(profile);
  const rows: [string, string][] = [
    ['Viewport', `${profile.width} × ${profile.height} CSS px, ratio ${profile.dpr}, ${profile.orientation}`],
    ['Screen', `${profile.screen.width} × ${profile.screen.height} CSS px`],
    [
      'Size',
      `${((profile.width * mm) / 10).toFixed(1)} × ${((profile.height * mm) / 10).toFixed(1)} cm${profile.density === null ? ', taken from CSS px: it has no size of its own' : `, ${profile.density} px an inch`}`,
    ],
    ['Input', `${profile.touch ? 'touch' : 'no touch'}${profile.mobile ? ', mobile viewport' : ''}`],
    ['Platform', `${profile.platform}, ${profile.scheme} scheme`],
    ['User agent', profile.userAgent],
  ];
  if (render) {
    const { timings: t, document: size, delivery } = render;
    rows.push(
      [
        'Address',
        `${render.finalUrl ?? page.value.source}${render.httpStatus === null ? '' : `, status ${render.httpStatus}`}`,
      ],
      ['Page', size ? `${size.width} × ${size.height} CSS px` : 'not laid out'],
      [
        'Times',
        `load ${timeText(t.loadMs)}, rest ${timeText(t.settleMs)}, reading ${timeText(t.collectMs)}, rules ${timeText(t.analyseMs)}, pictures ${timeText(t.shotMs)}, causes ${timeText(t.causeMs)}`,
      ],
    );
    const { timing } = delivery;
    if (timing)
      rows.push([
        'Server',
        `name ${timeText(timing.dnsMs)}, connection ${timeText(timing.connectMs)}, TLS ${timeText(timing.tlsMs)}, answer ${timeText(timing.waitMs)}`,
      ]);
    const requests = Object.entries(delivery.requests).map(
      ([kind, { count, bytes }]) => `${kind} ${count} (${Math.ceil(bytes / 1024)} KB)`,
    );
    if (requests.length > 0) rows.push(['Delivered', requests.join(', ')]);
  }
  const failures = render?.delivery.failures ?? [];
  const errors = [...(render?.delivery.pageErrors ?? []), ...(render?.delivery.consoleErrors ?? [])];
  return (
    <Dialog title={name} onClose={() => (sheet.value = null)}>
      <dl class="facts">
        {rows.map(([what, text]) => (
          <div key={what}>
            <dt>{what}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      <Texts title="Notes" texts={render?.notes ?? []} />
      <Texts
        title="Failed requests"
        texts={failures.map(
          ({ url, status, reason }) => `${url}: ${status === null ? '' : `${status} `}${reason}`,
        )}
      />
      <Texts title="Errors of scripts" texts={errors} />
    </Dialog>
  );
}

function Texts({ title, texts }: { title: string; texts: readonly string[] }) {
  if (texts.length === 0) return null;
  return (
    <>
      <h3>{title}</h3>
      <ul>
        {texts.slice(0, MOST_LISTED).map((text, i) => (
          <li key={i}>{text}</li>
        ))}
        {texts.length > MOST_LISTED && <li>and {texts.length - MOST_LISTED} more</li>}
      </ul>
    </>
  );
}
