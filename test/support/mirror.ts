import { serve } from './program.js';

/** All that a page can observe of the device it runs on, as the mirror page writes it down. */
export interface Observed {
  readonly inner: [number, number];
  readonly screen: [number, number];
  readonly ratio: number;
  readonly orientation: [string, number];
  readonly userAgent: string;
  readonly platform: string;
  readonly vendor: string;
  readonly touchPoints: number;
  readonly touchEvents: boolean;
  readonly noHover: boolean;
  readonly coarse: boolean;
  readonly hints: {
    mobile: boolean;
    platform: string;
    brands: string[];
    model: string;
    version: string;
  } | null;
  readonly insets: string;
  readonly scrollBar: number;
  readonly dark: boolean;
  readonly language: string;
}

export interface Visit {
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  /** What the first script of the page saw, before anything else ran. */
  readonly first: Omit<Observed, 'insets' | 'scrollBar' | 'hints'>;
  readonly observed: Observed;
}

const PAGE = `<!doctype html><html lang="en"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover">
<script>
  const look = () => ({
    inner: [innerWidth, innerHeight], screen: [screen.width, screen.height], ratio: devicePixelRatio,
    orientation: [screen.orientation.type, screen.orientation.angle], userAgent: navigator.userAgent,
    platform: navigator.platform, vendor: navigator.vendor, touchPoints: navigator.maxTouchPoints,
    touchEvents: 'ontouchstart' in window, noHover: matchMedia('(hover: none)').matches,
    coarse: matchMedia('(pointer: coarse)').matches, dark: matchMedia('(prefers-color-scheme: dark)').matches,
    language: navigator.language,
  });
  const first = look();
</script>
<title>Mirror</title><style>
  body { margin: 0; }
  #insets { padding: env(safe-area-inset-top) env(safe-area-inset-right) env(safe-area-inset-bottom) env(safe-area-inset-left); }
  #bar { overflow: scroll; width: 100px; height: 100px; }
</style></head><body><div id="insets"></div><div id="bar"></div><script>
  (async () => {
    const data = navigator.userAgentData;
    const high = data && await data.getHighEntropyValues(['model', 'platformVersion']);
    const bar = document.querySelector('#bar');
    const observed = {
      ...look(),
      insets: getComputedStyle(document.querySelector('#insets')).padding,
      scrollBar: bar.offsetWidth - bar.clientWidth,
      hints: data ? { mobile: data.mobile, platform: data.platform, brands: data.brands.map((b) => b.brand + ' ' + b.version), model: high.model, version: high.platformVersion } : null,
    };
    await fetch('/seen?VISIT', { method: 'POST', body: JSON.stringify({ first, observed }) });
  })();
</script></body></html>`;

/** A server whose one page tells it what it sees; request headers of the page itself are recorded beside that. */
export async function mirrorServer(): Promise<{
  origin: string;
  visits: Visit[];
  close: () => Promise<void>;
}> {
  const visits: Visit[] = [];
  const headers: Visit['headers'][] = [];
  const server = await serve((request, response) => {
    const [path, query] = (request.url ?? '/').split('?');
    if (path === '/seen') {
      let body = '';
      request.on('data', (part: Buffer) => (body += part.toString()));
      request.on('end', () => {
        visits.push({
          headers: headers[Number(query)]!,
          ...(JSON.parse(body) as Pick<Visit, 'first' | 'observed'>),
        });
        response.end();
      });
    } else if (path === '/') {
      const number = headers.push(request.headers) - 1;
      response.writeHead(200, { 'content-type': 'text/html' }).end(PAGE.replace('VISIT', String(number)));
    } else {
      response.writeHead(404).end();
    }
  });
  return { ...server, visits };
}
