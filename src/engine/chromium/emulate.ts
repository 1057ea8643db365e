import type { CDPSession } from 'puppeteer-core';
import type { Conditions, Network } from '../../core/profile/conditions.js';
import type { Device } from '../../core/profile/profile.js';
import { disguise } from './disguise.js';

/**
 * Puts everything of a device and its conditions in force on a page that has not asked for anything yet. Sizes are
 * CSS px. (Chrome DevTools Protocol, domains Emulation, Network and Page.)
 */
export async function emulate(session: CDPSession, device: Device): Promise<void> {
  const { top, right, bottom, left } = device.insets;
  await Promise.all([
    emulateScreen(session, device),
    session.send('Emulation.setTouchEmulationEnabled', {
      enabled: device.touchPoints > 0,
      maxTouchPoints: Math.max(1, device.touchPoints),
    }),
    session.send('Emulation.setSafeAreaInsetsOverride', { insets: { top, right, bottom, left } }),
    // Scroll bars that lie over the page take no room and fade after scrolling: a picture of one is a matter of luck.
    session.send('Emulation.setScrollbarsHidden', { hidden: device.scrollBars === 'overlay' }),
    ...identity(session, device),
    ...media(session, device.conditions),
    ...pace(session, device.conditions),
  ]);
}

/** The size, screen and orientation of a device. */
export async function emulateScreen(session: CDPSession, device: Device): Promise<void> {
  const type = device.orientationType.replace(/-(.)/, (_, letter: string) => letter.toUpperCase());
  await session.send('Emulation.setDeviceMetricsOverride', {
    width: device.width,
    height: device.height,
    deviceScaleFactor: device.dpr,
    mobile: device.mobile,
    screenWidth: device.screen.width,
    screenHeight: device.screen.height,
    screenOrientation: {
      type: type as 'portraitPrimary' | 'portraitSecondary' | 'landscapePrimary' | 'landscapeSecondary',
      angle: device.angle,
    },
  });
}

function identity(session: CDPSession, device: Device): Promise<unknown>[] {
  const { agent, conditions } = device;
  const { hints } = agent;
  return [
    session.send('Emulation.setUserAgentOverride', {
      userAgent: agent.userAgent,
      platform: agent.navigatorPlatform,
      acceptLanguage: languages(conditions.locale ?? 'en-GB'),
      ...(hints && {
        userAgentMetadata: {
          platform: hints.platform,
          platformVersion: hints.platformVersion,
          architecture: hints.architecture,
          bitness: hints.bitness,
          model: hints.model,
          mobile: hints.mobile,
          wow64: false,
          brands: [...hints.brands],
          fullVersionList: [...hints.fullVersionList],
        },
      }),
    }),
    session.send('Page.addScriptToEvaluateOnNewDocument', { source: disguise(device) }),
    session.send('Emulation.setLocaleOverride', {
      locale: (conditions.locale ?? 'en-GB').replaceAll('-', '_'),
    }),
    ...(conditions.timezone === undefined
      ? []
      : [session.send('Emulation.setTimezoneOverride', { timezoneId: conditions.timezone })]),
  ];
}

function media(session: CDPSession, conditions: Conditions): Promise<unknown>[] {
  const features = [
    { name: 'prefers-color-scheme', value: conditions.scheme ?? 'light' },
    { name: 'prefers-reduced-motion', value: conditions.reducedMotion === true ? 'reduce' : 'no-preference' },
    { name: 'prefers-contrast', value: conditions.contrast ?? 'no-preference' },
    { name: 'forced-colors', value: conditions.forcedColors === true ? 'active' : 'none' },
  ];
  return [session.send('Emulation.setEmulatedMedia', { media: conditions.media ?? '', features })];
}

function pace(session: CDPSession, conditions: Conditions): Promise<unknown>[] {
  const calls: Promise<unknown>[] = [];
  if (conditions.cpuSlowdown !== undefined && conditions.cpuSlowdown > 1) {
    calls.push(session.send('Emulation.setCPUThrottlingRate', { rate: conditions.cpuSlowdown }));
  }
  const network = conditions.network as Network | undefined;
  if (network) {
    const bytes = (kbps: number) => (kbps * 1000) / 8;
    calls.push(
      session.send('Network.emulateNetworkConditions', {
        offline: network.downKbps === 0 && network.upKbps === 0,
        latency: network.latencyMs,
        downloadThroughput: bytes(network.downKbps),
        uploadThroughput: bytes(network.upKbps),
      }),
    );
  }
  return calls;
}

/** `en-GB` is sent as `en-GB,en`, as browsers do; the weights are theirs to add. */
function languages(locale: string): string {
  const [language = locale] = locale.split('-');
  return language === locale ? locale : `${locale},${language}`;
}
