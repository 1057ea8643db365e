/** What programs may import: the check pipeline and the form of its result. */
export { check, type CheckPlan, type CheckTools } from './check.js';
export { loadCatalogue } from './catalogue.js';
export { manifestSchema, type Manifest } from './manifest.js';
export { RunFolder } from './run-folder.js';
