import type { z } from 'zod';
import type { agentTableSchema } from './agent-schema.js';

export type AgentTable = z.infer<typeof agentTableSchema>;

export interface Brand {
  readonly brand: string;
  readonly version: string;
}

/** What one browser says of itself. */
export interface Agent {
  readonly userAgent: string;
  readonly navigatorPlatform: string;
  readonly vendor: string;
  /** User-Agent Client Hints (https://wicg.github.io/ua-client-hints/); null where the browser has none. */
  readonly hints:
    | (NonNullable<AgentTable['agents'][string]['hints']> & {
        readonly brands: readonly Brand[];
        readonly fullVersionList: readonly Brand[];
      })
    | null;
}

/** A row of the table with the versions filled in; undefined where there is no such row. */
export function agentOf(table: AgentTable, name: string): Agent | undefined {
  const row = table.agents[name];
  if (!row) return undefined;
  const { versions } = table;
  const userAgent = row.userAgent.replace(/\{(\w+)\}/g, (whole, key: string) =>
    key in versions ? versions[key as keyof typeof versions] : whole,
  );
  const brands = (chromium: string, other: string): Brand[] => [
    { brand: 'Chromium', version: chromium },
    { brand: 'Google Chrome', version: chromium },
    { brand: 'Not.A/Brand', version: other },
  ];
  return {
    userAgent,
    navigatorPlatform: row.navigatorPlatform,
    vendor: row.vendor,
    hints: row.hints && {
      ...row.hints,
      brands: brands(versions.chromium, '99'),
      fullVersionList: brands(versions.chromiumFull, '99.0.0.0'),
    },
  };
}
