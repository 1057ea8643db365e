// Writes a run as large as they get, made by hand: every page on every profile, with pictures as long as real ones.
import { copyFile, mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';

/** CSS px. */
const PAGE_HEIGHT = 6000;
const RULES = [
  ['page-overflow', 'overflow', 'error'],
  ['text-overlap', 'overlap', 'error'],
  ['box-overflow', 'overflow', 'warning'],
  ['small-target', 'touch', 'notice'],
];

/** Bands and blocks, so that pictures are neither empty nor noise. */
const picture = (width, seed) => {
  const blocks = Array.from({ length: 60 }, (_, i) => {
    const [x, y] = [((i * 37 + seed * 11) % 80) / 100, i * 100];
    const tone = (i * 47 + seed * 29) % 360;
    return `<rect x="${x * width}" y="${y}" width="${width / 3}" height="72" fill="hsl(${tone} 40% 60%)"/><text x="12" y="${y + 40}" font-size="28">Pier ${seed} at ${i}</text>`;
  });
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${PAGE_HEIGHT}"><rect width="100%" height="100%" fill="#f4f1ea"/>${blocks.join('')}</svg>`,
  );
};

/** @param folder an empty one */
export async function writeLargeRun(folder, pages = 30, profiles = 40) {
  const { profiles: catalogue } = JSON.parse(await readFile('dist/catalogue.json', 'utf8'));
  const chosen = catalogue.slice(0, profiles).map((profile) => {
    const orientation = profile.viewport[profile.orientation]
      ? profile.orientation
      : Object.keys(profile.viewport)[0];
    const { width, height } = profile.viewport[orientation];
    const { name, class: kind, platform, dpr, screen, density = null, mobile } = profile;
    return {
      name,
      width,
      height,
      dpr,
      class: kind,
      screen,
      insets: { top: 0, right: 0, bottom: 0, left: 0 },
      density,
      orientation,
      scheme: 'light',
      platform,
      touch: profile.touchPoints > 0,
      mobile,
      userAgent: 'made by hand',
    };
  });
  const ids = Array.from({ length: pages }, (_, i) => `pier-${i}`);
  await mkdir(join(folder, 'pictures'), { recursive: true });
  for (const [i, { width }] of chosen.entries()) {
    const full = sharp(picture(width, i));
    await full
      .clone()
      .png({ compressionLevel: 1 })
      .toFile(join(folder, 'pictures', `${i}.png`));
    const scale = Math.min(0.5, 480 / width);
    await full
      .resize(Math.ceil(width * scale), Math.ceil(PAGE_HEIGHT * scale), { fit: 'fill' })
      .webp({ quality: 80, effort: 1 })
      .toFile(join(folder, 'pictures', `${i}.webp`));
  }
  const renders = [];
  for (const page of ids) {
    await mkdir(join(folder, 'shots', page), { recursive: true });
    for (const [i, { name, width }] of chosen.entries()) {
      const base = `shots/${page}/${name}`;
      // A file of its own for each render: the browser must not know one from another.
      await copyFile(join(folder, 'pictures', `${i}.png`), join(folder, `${base}.full.png`));
      await copyFile(join(folder, 'pictures', `${i}.webp`), join(folder, `${base}.preview.webp`));
      renders.push({
        page,
        profile: name,
        status: 'ok',
        finalUrl: null,
        httpStatus: 200,
        error: null,
        document: { width, height: PAGE_HEIGHT },
        timings: { loadMs: 0, settleMs: 0, collectMs: 0, analyseMs: 0, shotMs: 0, causeMs: 0 },
        shots: { full: `${base}.full.png`, preview: `${base}.preview.webp` },
        notes: [],
        delivery: {
          redirects: [],
          contentType: null,
          requests: {},
          failures: [],
          consoleErrors: [],
          pageErrors: [],
          timing: null,
          structure: null,
        },
      });
    }
  }
  const findings = ids.flatMap((page, at) =>
    RULES.map(([rule, family, severity], i) => ({
      id: `${rule}-${at}`,
      rule,
      family,
      severity,
      page,
      pages: [page],
      key: `${rule}\n${at}`,
      selector: `main > section:nth-of-type(${i + 1})`,
      related: [],
      message: `Made by hand: something of 20 px on ${page}.`,
      details: [],
      words: 'Pier',
      cause: null,
      right: null,
      waived: null,
      seen: chosen.slice(0, 10 + i * 10).map(({ name, width }) => ({
        page,
        profile: name,
        rect: { x: 10, y: 200 + i * 1300, width: width / 2, height: 60 },
        by: { axis: 'x', px: 20 },
      })),
    })),
  );
  const count = (severity) => findings.filter((finding) => finding.severity === severity).length;
  const manifest = {
    format: 'isoptic-run',
    version: 1,
    tool: { name: 'isoptic', version: '0.0.0' },
    engine: { name: 'chromium', version: '0' },
    startedAt: '2026-11-28T08:00:00.000Z',
    durationMs: 0,
    interrupted: false,
    pages: ids.map((id) => ({ id, source: `${id}.html`, title: `Lantern Isles, ${id}` })),
    profiles: chosen,
    renders,
    findings,
    waivers: [],
    summary: {
      renders: renders.length,
      failed: 0,
      errors: count('error'),
      warnings: count('warning'),
      notices: count('notice'),
      waived: 0,
    },
  };
  await mkdir(join(folder, 'places'), { recursive: true });
  for (const page of ids) {
    const heights = Array.from({ length: 60 }, (_, i) => [i, i * 100]).flat();
    await writeFile(
      join(folder, 'places', `${page}.json`),
      JSON.stringify({
        kinds: 'h'.repeat(60),
        at: Object.fromEntries(chosen.map(({ name }) => [name, heights])),
      }),
    );
  }
  await writeFile(join(folder, 'run.json'), JSON.stringify(manifest));
}
