import { render } from 'preact';
import { App } from './app.js';
import { look, manifest } from './state.js';

/** Narrower, the findings lie over the wall: they are folded at first. */
const SMALL = matchMedia('(max-width: 700px)');

const names = [...new Set(manifest.pages.map((page) => page.title || page.source))].join(', ');
document.title = `Isoptic: ${names}`.slice(0, 120);
if (SMALL.matches && !location.hash.includes('drawer')) look({ drawer: false });
render(<App />, document.getElementById('report')!);
