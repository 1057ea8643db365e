/** An esbuild plugin that puts nothing in the place of modules that are never used; whoever uses one all the same fails with its name. */
export function withoutModules(filter) {
  const namespace = 'left-out';
  return {
    name: namespace,
    setup(build) {
      build.onResolve({ filter }, ({ path }) => ({ path, namespace }));
      build.onLoad({ filter: /.*/, namespace }, ({ path }) => ({
        contents: `module.exports = new Proxy({}, { get(_, name) { throw new Error('left out of the bundle: ${path} ' + String(name)); } });`,
        loader: 'js',
      }));
    },
  };
}
