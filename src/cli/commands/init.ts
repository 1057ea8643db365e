import { writeFile } from 'node:fs/promises';
import { Command } from 'commander';
import { IsopticError, messageOf } from '../../core/errors.js';

const EXAMPLES = `
Example:
  isoptic init    write isoptic.yaml into this folder`;

/** The configuration to start from: all of it is comment until the user takes a # away. */
export const STARTING_CONFIG = `# Isoptic's configuration. It is found from the working folder upwards; what the command line says wins.
# Every key: docs/configuration.md

# What is used when no profile is picked.
# defaultLineup: release

# Named, ordered lists of profiles (isoptic profiles) and sizes.
# lineups:
#   release:
#     - ios-phone-390
#     - android-phone-360
#     - android-phone-360:landscape
#     - ios-tablet-820
#     - 1024x768
#     - windows-laptop-1366

# Profiles of your own: from another one with changes, or complete.
# profiles:
#   pier-kiosk-1080:
#     from: tv-1920
#     viewport:
#       portrait: { width: 1080, height: 1920 }
#     screen: { width: 1080, height: 1920 }
#     orientation: portrait
#     touchPoints: 10

# What a user or their system asks for; each is also a key of a profile and an option of check.
# conditions:
#   scheme: dark
#   textScale: 1.3
#   locale: de-CH
#   timezone: Europe/Zurich
#   network: harbour-wifi

# Networks of your own.
# networks:
#   harbour-wifi: { latencyMs: 90, downKbps: 2000, upKbps: 500 }

# What it takes to reach the pages: docs/preparation.md
# access:
#   credentials: { env: STAGING_LOGIN }
#   headers:
#     X-Preview: 'yes'

# What is done before pages are captured; every mark is a page state of its own.
# preparations:
#   - name: menu
#     steps:
#       - click: '#menu'
#       - wait: { selector: nav }
#       - mark: menu open

# What stays out of the pictures, and what must be in the first screen.
# hide: ['.advertisement']
# mask: ['.account-number']
# essentials: ['a.buy']

# fonts: platform      # or host: this machine's own fonts
# timeout: 30          # seconds for each page and profile
# failOn: error        # or warning, notice, never
`;

export function initCommand(): Command {
  return new Command('init').addHelpText('after', EXAMPLES).action(async () => {
    try {
      await writeFile('isoptic.yaml', STARTING_CONFIG, { flag: 'wx' });
    } catch (error) {
      const there = /EEXIST/.test(messageOf(error));
      throw new IsopticError(
        'init',
        there ? 'isoptic.yaml is already here.' : `isoptic.yaml can not be written (${messageOf(error)}).`,
        there ? 'Edit it, or remove it first.' : 'Go to a folder that you may write to.',
      );
    }
    process.stdout.write(
      'Wrote isoptic.yaml. All of it is comment: take away the # where you want something.\n',
    );
  });
}
