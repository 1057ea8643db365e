import type { CDPSession } from 'puppeteer-core';
import type { Device } from '../../core/profile/profile.js';

/**
 * Puts everything of a device in force on a page that has not asked for anything yet: metrics, screen, orientation,
 * touch, user agent with client hints, insets. Sizes are CSS px. (Chrome DevTools Protocol, domain Emulation.)
 */
export async function emulate(session: CDPSession, device: Device): Promise<void> {
  const { agent, insets } = device;
  await Promise.all([
    session.send('Emulation.setDeviceMetricsOverride', {
      width: device.width,
      height: device.height,
      deviceScaleFactor: device.dpr,
      mobile: device.mobile,
      screenWidth: device.screen.width,
      screenHeight: device.screen.height,
      screenOrientation: {
        type: device.orientation === 'portrait' ? 'portraitPrimary' : 'landscapePrimary',
        angle: device.angle,
      },
    }),
    session.send('Emulation.setTouchEmulationEnabled', {
      enabled: device.touchPoints > 0,
      maxTouchPoints: Math.max(1, device.touchPoints),
    }),
    session.send('Emulation.setUserAgentOverride', {
      userAgent: agent.userAgent,
      platform: agent.navigatorPlatform,
      ...(agent.hints && {
        userAgentMetadata: {
          ...agent.hints,
          fullVersionList: agent.hints.brands.map(({ brand, version }) => ({
            brand,
            version:
              version === majorOf(agent.hints?.fullVersion) ? agent.hints!.fullVersion : `${version}.0.0.0`,
          })),
          wow64: false,
        },
      }),
    }),
    session.send('Emulation.setSafeAreaInsetsOverride', {
      insets: { top: insets.top, right: insets.right, bottom: insets.bottom, left: insets.left },
    }),
    // Scroll bars that lie over the page take no room and fade after scrolling: a picture of one is a matter of luck.
    session.send('Emulation.setScrollbarsHidden', { hidden: device.mobile || device.platform === 'mac' }),
  ]);
}

function majorOf(version: string | undefined): string {
  return version?.split('.')[0] ?? '';
}
