import { accessOf } from '../../src/cli/config/access.js';
import { Secrets } from '../../src/cli/config/secrets.js';

const NOTHING = { headers: {}, cookies: [], origins: [], trustAnyCertificate: false };

/** What is known to be secret after cookies were given on the command line. */
async function after(...cookie: string[]): Promise<Secrets> {
  const secrets = new Secrets('.');
  await accessOf(NOTHING, { header: [], cookie, trustAnyCertificate: false }, secrets);
  return secrets;
}

describe('what is taken out of a run', () => {
  it('leaves chosen themes and decks in it', async () => {
    const secrets = await after('theme=dark', 'deck=upper');
    const run = { profile: 'phone+dark', message: 'The dark sea', style: 'uppercase' };
    expect(secrets.redact(run)).toEqual(run);
  });

  it('knows a token by its name or its looks', async () => {
    const secrets = await after('session=harbour', 'x=q7hw93kfla02mzpe');
    expect(secrets.redact(['harbour', 'q7hw93kfla02mzpe'])).toEqual(['•••', '•••']);
  });

  it('takes secrets out as words, never as parts of others, nor out of names', () => {
    const secrets = new Secrets('.');
    secrets.add('upper', 'dark', 'a+b(c)');
    expect(
      secrets.redact({
        profile: 'upper',
        page: 'dark',
        shots: { fold: 'shots/dark/upper.fold.png' },
        seen: [{ evidence: 'evidence/dark.png' }],
        message: 'uppercase, upper, x=a+b(c)! and darkness',
        pages: [{ id: 'dark', title: 'dark' }],
      }),
    ).toEqual({
      profile: 'upper',
      page: 'dark',
      shots: { fold: 'shots/dark/upper.fold.png' },
      seen: [{ evidence: 'evidence/dark.png' }],
      message: 'uppercase, •••, x=•••! and darkness',
      pages: [{ id: 'dark', title: '•••' }],
    });
  });
});
