import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Manifest } from '../../src/run/manifest.js';
import { isoptic, manifestOf, temporaryFolder } from './program.js';

export const meta =
  '<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">';
const boats = Array.from({ length: 6 }, (_, i) => `<li>Boat ${i}</li>`).join('');

const PAGES: Readonly<Record<string, string>> = {
  // A list of columns by media queries, with a hole of one px between them, and a fixed width.
  'edges.html': `${meta}<title>Edges</title><link rel="stylesheet" href="edges.css"><ul class="boats">${boats}</ul><div class="pass">The Island Pass</div>`,
  'edges.css': `body { margin: 0 }
.boats { display: grid; gap: 8px; margin: 0; padding: 0 }
.pass { width: 500px; background: #0a8 }
@media (min-width: 700px) and (max-width: 899px) {
  .boats { grid-template-columns: 1fr 1fr }
}
@media (min-width: 901px) {
  .boats { grid-template-columns: 1fr 1fr 1fr }
}
@media (min-width: 1000px) {
  .nothing-like-this { color: red }
}
`,
  'once.html': `${meta}<title>Once</title><body style="margin:0"><div id="row" style="height:40px;background:#0a8">As wide as at load</div><script>document.getElementById('row').style.width = innerWidth > 600 ? '590px' : (innerWidth - 10) + 'px'</script>`,
  // On a second visit nothing sticks out.
  'visited.html': `${meta}<title>Visited</title><style>body { margin: 0 } body > * { border: 1px solid; margin: 0 20px 8px } b { display: block; background: #0a8 } .seen b { max-width: 100% }</style><script>
    if (localStorage.getItem('seen')) document.documentElement.className = 'seen';
    localStorage.setItem('seen', 'yes');</script>${['section', 'article', 'aside', 'figure', 'form'].map((name, i) => `<${name}><b style="width:${440 + 40 * i}px">As wide as that</b></${name}>`).join('')}`,
  'dragged.html': `${meta}<title>Dragged</title><body style="margin:0"><nav style="height:40px;background:#0a8">Sailing times</nav><script>
    const nav = document.querySelector('nav');
    const fit = () => { if (innerWidth > 900) nav.style.minWidth = '700px'; else if (innerWidth < 400) nav.style.minWidth = ''; };
    addEventListener('resize', fit); fit();</script>`,
  'anew.html': `${meta}<title>Anew</title><body style="margin:0"><main></main><script>
    const build = () => { document.querySelector('main').innerHTML = '<ul style="display:grid;grid-template-columns:repeat(' + (innerWidth > 640 ? 2 : 1) + ',1fr);margin:0;padding:0">${boats}</ul><div style="width:500px;background:#0a8">Five hundred</div>'; };
    addEventListener('resize', build); build();</script>`,
  // A boat goes to and fro by a script, which is no animation that could be brought to its end.
  'clock.html': `${meta}<title>Clock</title><style>body { margin: 0 } #sea { position: relative; height: 40px } #boat { position: absolute; top: 0; width: 40px } .wide { width: 560px; background: #0a8 } @media (min-width: 640px) { .wide { width: auto } }</style><div id="sea"><b id="boat">Boat</b></div><div class="wide">Five hundred and sixty</div><script>
    let at = 0; setInterval(() => { at = (at + 17) % 200; document.getElementById('boat').style.left = at + 'px'; }, 20);</script>`,
  // One slide after another, of which no two are alike.
  'slides.html': `${meta}<title>Slides</title><style>body { margin: 0 } .slide { display: none; height: 80px } .slide.on { display: grid } ul { display: grid } @media (min-width: 700px) { ul { grid-template-columns: 1fr 1fr } }</style><main><div class="show">${[1, 2, 3, 4, 5].map((count) => `<div class="slide">${'<p>Boat</p>'.repeat(count)}</div>`).join('')}</div><ul>${boats}</ul></main><script>
    const slides = [...document.querySelectorAll('.slide')]; let shown = 0;
    const next = () => { slides[shown].classList.remove('on'); shown = (shown + 1) % slides.length; slides[shown].classList.add('on'); }; next(); setInterval(next, 70);</script>`,
  // The script asks once, as it loads, and nothing is wrong with either layout.
  'asked.html': `${meta}<title>Asked</title><p>Boats</p><p id="more">All boats</p><script>document.getElementById('more').hidden = matchMedia('(max-width: 640px)').matches</script>`,
  'endless.html': `${meta}<title>Endless</title><p>Words.</p><script>addEventListener('resize', () => { if (innerWidth < 700) for (;;); })</script>`,
  'container.html': `${meta}<title>Container</title><body style="margin:0"><x-card></x-card><div style="width:calc(50vw + 200px);background:#0a8">Half and two hundred</div><script>
    customElements.define('x-card', class extends HTMLElement { constructor() { super(); this.attachShadow({ mode: 'open' }).innerHTML =
      '<style>:host { display: block; container-type: inline-size; margin: 0 5vw } .g { display: grid } @container (min-width: 500px) { .g { grid-template-columns: 1fr 1fr } }</style><div class="g"><p>One</p><p>Two</p></div>'; } });</script>`,
};

/** A temporary folder with pages that change with the width of their window, and a search over one of them. */
export async function sweepSite() {
  const temp = await temporaryFolder();
  for (const [name, text] of Object.entries(PAGES)) await writeFile(join(temp.path, name), text);
  let runs = 0;
  const swept = async (page: string, ...args: string[]): Promise<Manifest> => {
    const all = ['sweep', page, '--shots', 'none', '--json', '--out', `run-${++runs}`, ...args];
    const outcome = await isoptic(all, { cwd: temp.path });
    // Nor what Node warns of.
    expect(outcome.stderr).toBe('');
    return manifestOf(outcome);
  };
  return { ...temp, swept };
}
