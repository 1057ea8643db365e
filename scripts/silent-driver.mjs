/**
 * An esbuild plugin that takes the logging of messages out of the browser's driver: it makes a logger anew for each message that goes to a
 * browser or comes from one, whether or not anybody listens.
 */
export function silentDriver() {
  return {
    name: 'silent-driver',
    setup(build) {
      let isMet = false;
      build.onLoad({ filter: /puppeteer-core[\\/]lib[\\/].*[\\/]common[\\/]Debug\.js$/ }, () => {
        isMet = true;
        return {
          contents: [
            'export const debug = () => () => undefined;',
            'export const importDebug = async () => debug;',
            'export const setLogCapture = () => undefined;',
            'export const getCapturedLogs = () => [];',
          ].join('\n'),
          loader: 'js',
        };
      });
      // A newer driver may keep it elsewhere.
      build.onEnd(() => (isMet ? undefined : { errors: [{ text: 'the driver’s logging was not found' }] }));
    },
  };
}
