import { BENCH_DEVICES, pageOf } from './bench-page.mjs';
import { matcherOf } from './match.mjs';

/**
 * Holds what was found against what was planted. A planted fault is a hit where its rule reports it; the culprit is right
 * where the reported selector is the planted element, or one that is accepted for it. Everything else of severity warning or
 * error is a false alarm.
 */
export async function scoreOf(cases, manifest) {
  const names = Object.entries(BENCH_DEVICES);
  const rules = {};
  const misses = [];
  const scores = { rules, misses, falseAlarms: 0, alarmsOnCorrect: 0, correctRenders: 0 };
  for (const entry of cases) {
    const page = manifest.pages.find(({ source }) => source === `${entry.id}.html`)?.id;
    const findings = manifest.findings.filter(
      (finding) => finding.page === page && finding.severity !== 'notice',
    );
    if (entry.form !== 'fault') {
      scores.correctRenders += names.length;
      for (const finding of findings) {
        scores.falseAlarms++;
        scores.alarmsOnCorrect += finding.seen.length;
        misses.push(
          `FALSE  ${entry.id}: ${finding.rule} ${finding.selector} on ${finding.seen.map((s) => s.profile).join(', ')}: ${finding.message}`,
        );
      }
      continue;
    }
    const rule = (rules[entry.rule] ??= { planted: 0, found: 0, culprit: 0, places: 0 });
    rule.planted++;
    const hits = findings.filter((finding) => finding.rule === entry.rule);
    // Some faults are two defects to a person, such as content lost on one side and scrolled to on the other.
    const own = [entry.rule, ...(entry.also ?? [])];
    for (const finding of findings.filter((other) => !own.includes(other.rule))) {
      scores.falseAlarms++;
      misses.push(
        `EXTRA  ${entry.id}: ${finding.rule} ${finding.selector} on ${finding.seen.map((s) => s.profile).join(', ')}: ${finding.message}`,
      );
    }
    if (hits.length === 0) {
      misses.push(`MISSED ${entry.id}: ${entry.selector}`);
      continue;
    }
    rule.found++;
    for (const hit of hits.slice(1)) {
      scores.falseAlarms++;
      misses.push(`AGAIN  ${entry.id}: ${hit.rule} ${hit.selector}: ${hit.message}`);
    }
    const matches = matcherOf(pageOf(entry));
    const right = hits.some(({ selector }) =>
      [entry.selector, ...(entry.accept ?? [])].some((wanted) => matches(selector, wanted)),
    );
    if (right) rule.culprit++;
    else
      misses.push(
        `WRONG  ${entry.id}: ${hits.map(({ selector }) => selector).join(' | ')} instead of ${entry.selector}: ${hits[0].message}`,
      );
    const seen = new Set(hits.flatMap((finding) => finding.seen.map(({ profile }) => profile)));
    const wanted = names.filter(([name]) => entry.at.includes(name)).map(([, size]) => size);
    if (wanted.length === seen.size && wanted.every((size) => seen.has(size))) rule.places++;
    else misses.push(`WIDTHS ${entry.id}: on ${[...seen].join(', ')} instead of ${wanted.join(', ')}`);
  }
  return scores;
}
