import * as z from 'zod';
import { IsopticError } from '../../core/errors.js';
import { NO_ACCESS, type Access, type Cookie } from '../../engine/access.js';
import { secretSchema, secretSourceSchema, type Secrets } from './secrets.js';

const originSchema = z
  .string()
  .refine(
    (text) => URL.canParse(text) && new URL(text).origin === text,
    'must be an origin such as https://api.example.test',
  );

export const accessSchema = z.strictObject({
  /** Sent to the pages' own origins and to `origins`. */
  headers: z
    .record(z.string().regex(/^[!#$%&'*+.^_`|~\w-]+$/, 'is not a header name'), secretSchema)
    .default({}),
  cookies: z
    .array(
      z.strictObject({
        name: z.string().min(1),
        value: secretSchema,
        domain: z.string().optional(),
        path: z.string().optional(),
        secure: z.boolean().optional(),
        sameSite: z.enum(['Strict', 'Lax', 'None']).optional(),
      }),
    )
    .default([]),
  /** `user:password` for HTTP authentication. */
  credentials: secretSourceSchema.optional(),
  origins: z.array(originSchema).default([]),
  trustAnyCertificate: z.boolean().default(false),
});

/** The options of the command line that say how pages are reached. */
export interface AccessOptions {
  readonly header: readonly string[];
  readonly cookie: readonly string[];
  readonly credentials?: string | undefined;
  readonly trustAnyCertificate: boolean;
}

/** Header names whose values are secret even where they stand in the configuration. */
const SECRET_HEADER = /auth|cookie|token|key|secret|session|password/i;

/** The name says so, or the value is long and made up as no word is. */
function isSecretCookie(name: string, value: string): boolean {
  const isMadeUp = value.length >= 16 && /\d/.test(value) && /[a-z]/i.test(value);
  return isMadeUp || /auth|token|key|secret|sess|sid\b|passw|csrf|xsrf|jwt/i.test(name);
}

/**
 * What the configuration and the command line give to reach pages; the command line wins.
 * @throws IsopticError `secret-missing`, `bad-option`, `bad-credentials`
 */
export async function accessOf(
  config: z.output<typeof accessSchema>,
  options: AccessOptions,
  secrets: Secrets,
): Promise<Access> {
  const headers: Record<string, string> = {};
  for (const [name, value] of Object.entries(config.headers)) {
    headers[name] = await secrets.read(value, `access.headers.${name}`);
  }
  for (const written of options.header) {
    const [name, value] = pairOf(written, ':', '--header');
    headers[name] = value;
  }
  for (const [name, value] of Object.entries(headers)) {
    if (SECRET_HEADER.test(name)) secrets.add(value, value.replace(/^\S+\s+/, ''));
  }
  const cookies: Cookie[] = [];
  for (const { value, ...cookie } of config.cookies) {
    cookies.push({ ...cookie, value: await secrets.read(value, `access.cookies, ${cookie.name}`) });
  }
  for (const written of options.cookie) {
    const [name, value] = pairOf(written, '=', '--cookie');
    cookies.push({ name, value });
  }
  // What is read from the environment or a file is secret whatever it looks like; a chosen theme is not.
  for (const { name, value } of cookies) if (isSecretCookie(name, value)) secrets.add(value);
  const credentials = await credentialsOf(config, options, secrets);
  const trustAnyCertificate = options.trustAnyCertificate || config.trustAnyCertificate;
  const { origins } = config;
  const asked =
    Object.keys(headers).length + cookies.length > 0 || credentials !== null || trustAnyCertificate;
  return asked ? { ...NO_ACCESS, headers, cookies, credentials, origins, trustAnyCertificate } : NO_ACCESS;
}

async function credentialsOf(
  config: z.output<typeof accessSchema>,
  options: AccessOptions,
  secrets: Secrets,
): Promise<Access['credentials']> {
  const source = options.credentials === undefined ? config.credentials : sourceOf(options.credentials);
  if (!source) return null;
  const where = options.credentials === undefined ? 'access.credentials' : '--credentials';
  const text = await secrets.read(source, where);
  const colon = text.indexOf(':');
  if (colon < 1) {
    throw new IsopticError(
      'bad-credentials',
      `${where}: what stands there is not of the form user:password.`,
      'Write the user name, a colon and the password.',
    );
  }
  const password = text.slice(colon + 1);
  secrets.add(password, Buffer.from(text).toString('base64'));
  return { username: text.slice(0, colon), password };
}

/** `env:NAME` or a file's path. */
function sourceOf(written: string): { env: string } | { file: string } {
  return written.startsWith('env:') ? { env: written.slice(4) } : { file: written };
}

function pairOf(written: string, separator: string, option: string): [string, string] {
  const at = written.indexOf(separator);
  const name = written.slice(0, Math.max(0, at)).trim();
  if (name === '') {
    throw new IsopticError(
      'bad-option',
      `${option}: "${written.slice(0, 20)}" has no name before "${separator}".`,
      `Write NAME${separator}VALUE.`,
    );
  }
  return [name, written.slice(at + 1).trim()];
}
