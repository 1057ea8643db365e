export function figuresOf({ rules, falseAlarms, alarmsOnCorrect, correctRenders }) {
  const sum = (key) => Object.values(rules).reduce((total, rule) => total + rule[key], 0);
  const [planted, found, culprit, places] = ['planted', 'found', 'culprit', 'places'].map(sum);
  return {
    rules,
    all: {
      planted,
      found,
      places: places / Math.max(1, found),
      recall: found / Math.max(1, planted),
      precision: found / Math.max(1, found + falseAlarms),
      culprit: culprit / Math.max(1, found),
      falseAlarms,
      alarmsPerHundred: (100 * alarmsOnCorrect) / Math.max(1, correctRenders),
      correctRenders,
    },
  };
}

const percent = (share) => `${(share * 100).toFixed(1)} %`;

export function figuresText({ rules, all }, asPage = false) {
  const rows = Object.entries(rules).map(
    ([name, rule]) =>
      `| ${name} | ${rule.planted} | ${percent(rule.found / rule.planted)} | ${percent(rule.culprit / Math.max(1, rule.found))} | ${percent(rule.places / Math.max(1, rule.found))} |`,
  );
  const table = [
    '| rule | planted | recall | culprit right | exactly the right sizes |',
    '| --- | --- | --- | --- | --- |',
    ...rows,
  ].join('\n');
  const line = `${all.planted} faults: recall ${percent(all.recall)}, precision ${percent(all.precision)}, culprit ${percent(all.culprit)}; ${all.alarmsPerHundred.toFixed(2)} false alarms in 100 of ${all.correctRenders} renders of correct pages.`;
  if (!asPage) return `${table}\n\n${line}`;
  return `# Accuracy

Measured on our own collection in \`bench/pages/\`: faults, each with a repaired twin, and correct constructs that look like faults
to a naive checker, every page on four sizes. The twins and the constructs are the correct pages. The collection is also what the
rules were developed on, so these figures say what is covered and that nothing fell back; they are not a promise for pages that
nobody has seen.

${line}

${table}

\`node bench/accuracy.mjs\` prints this with every miss, \`--write\` writes this page, and \`--check\`, which the tests run, fails when a
figure falls below it.
`;
}
