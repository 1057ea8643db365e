// Whether a run holds a few pages or all of them: the peak of the tool's own memory for few and for many small pages.
// `--check` fails when the many take a tenth more.
import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const [few = 50, many = 400] = process.argv.filter((arg) => /^\d+$/.test(arg)).map(Number);
const ALLOWED = 1.1;

const page = (i) => `<!doctype html><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Pier ${i}</title><style>body { font: 16px/1.5 sans-serif; margin: 16px } .card { border: 1px solid #99b; padding: 12px }</style>
<h1>Pier ${i}</h1>${Array.from({ length: 12 }, (_, at) => `<div class="card"><h2>Boat ${at}</h2><p>Leaves pier ${i} at ${at + 6}:30 for the outer isles.</p></div>`).join('')}`;

/** The most memory that the process had at once, MiB, as the kernel counts it. */
async function peakOf(pages) {
  const folder = await mkdtemp(join(tmpdir(), 'isoptic-memory-'));
  try {
    for (let i = 0; i < pages; i++)
      await writeFile(join(folder, `pier-${String(i).padStart(4, '0')}.html`), page(i));
    const run = spawn(
      process.execPath,
      [
        'dist/cli/main.js',
        'check',
        folder,
        '--all',
        '--quiet',
        '--fail-on',
        'never',
        '--out',
        join(folder, 'run'),
      ],
      { stdio: ['ignore', 'ignore', 'inherit'] },
    );
    let peak = 0;
    const watch = setInterval(() => {
      readFile(`/proc/${run.pid}/status`, 'utf8')
        .then((status) => (peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024)))
        .catch(() => undefined);
    }, 100);
    const code = await new Promise((resolve) => run.once('exit', resolve));
    clearInterval(watch);
    if (code !== 0) throw new Error(`the check of ${pages} pages ended with ${code}`);
    return peak;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const peaks = [await peakOf(few), await peakOf(many)];
const ratio = peaks[1] / peaks[0];
console.log(
  `${few} pages × 6 profiles: ${peaks[0].toFixed(0)} MiB; ${many} pages: ${peaks[1].toFixed(0)} MiB; ratio ${ratio.toFixed(2)}`,
);
if (process.argv.includes('--check') && ratio > ALLOWED) process.exitCode = 1;
