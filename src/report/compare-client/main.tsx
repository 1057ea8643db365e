import { render } from 'preact';
import { App } from './app.js';

render(<App />, document.getElementById('report')!);
