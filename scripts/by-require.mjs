/**
 * An esbuild plugin by which an external package is loaded with `require`, where its own module form is many small files
 * that Node takes twice as long to read.
 */
export function byRequire(name) {
  const namespace = 'by-require';
  return {
    name: namespace,
    setup(build) {
      build.onResolve({ filter: new RegExp(`^${name}$`) }, ({ namespace: from }) =>
        from === namespace ? { path: name, external: true } : { path: name, namespace },
      );
      build.onLoad({ filter: /.*/, namespace }, () => ({
        contents: `module.exports = require('${name}');`,
        loader: 'js',
      }));
    },
  };
}
