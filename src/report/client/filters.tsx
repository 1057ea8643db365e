import { clearFilters, data, isFiltered, look, manifest, view } from './state.js';

type ListKey = 'rules' | 'families' | 'profiles';

const distinct = (values: readonly string[]) => [...new Set(values)].sort();
const CHOICES: readonly {
  readonly key: ListKey;
  readonly label: string;
  readonly values: readonly string[];
}[] = [
  { key: 'families', label: 'Family', values: distinct(manifest.findings.map(({ family }) => family)) },
  { key: 'rules', label: 'Rule', values: distinct(manifest.findings.map(({ rule }) => rule)) },
  { key: 'profiles', label: 'Profile', values: manifest.profiles.map(({ name }) => name) },
];
const hasWaived = manifest.findings.some(({ waived }) => waived);

/** What is listed and drawn, and in which order. */
export function Filters() {
  const { sort, waived, age } = view.value;
  return (
    <div class="filters">
      {CHOICES.map(({ key, label, values }) => (
        <label key={key}>
          <span class="hidden">{label}</span>
          <select
            value={view.value[key][0] ?? ''}
            onChange={({ currentTarget: { value } }) => look({ [key]: value === '' ? [] : [value] })}
          >
            <option value="">{label}: all</option>
            {values.map((value) => (
              <option key={value} value={value}>
                {value}
              </option>
            ))}
          </select>
        </label>
      ))}
      <label>
        <span class="hidden">Order</span>
        <select
          value={sort}
          onChange={({ currentTarget: { value } }) => look({ sort: value === 'place' ? 'place' : 'harm' })}
        >
          <option value="harm">Worst first</option>
          <option value="place">From the top down</option>
        </select>
      </label>
      {data.known !== null && (
        <label>
          <span class="hidden">New or known</span>
          <select
            value={age}
            onChange={({ currentTarget: { value } }) =>
              look({ age: value === 'new' || value === 'known' ? value : 'all' })
            }
          >
            <option value="all">New and known</option>
            <option value="new">New only</option>
            <option value="known">Known only</option>
          </select>
        </label>
      )}
      {hasWaived && (
        <label class="check">
          <input type="checkbox" checked={waived} onChange={() => look({ waived: !waived })} /> Waived too
        </label>
      )}
      {isFiltered.value && (
        <button class="quiet" onClick={clearFilters}>
          Show everything
        </button>
      )}
    </div>
  );
}
