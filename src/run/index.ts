/** What programs may import: the check pipeline and the form of its result. */
export { check } from './check.js';
export type { CheckPlan, CheckTools } from './plan.js';
export { loadCatalogue } from './catalogue.js';
export { manifestSchema, type Manifest } from './manifest.js';
export { RunFolder } from './run-folder.js';
