import { NO_ACCESS } from '../../src/engine/access.js';
import { keptFile, type SignIn } from '../../src/run/sign-in.js';

const signIn = (user: string): SignIn => ({
  name: 'crew',
  scope: 'isoptic.yaml',
  at: 'http://127.0.0.1/sign-in',
  keepMs: 1,
  steps: [{ action: { kind: 'fill', selector: '#user', text: user }, where: 'isoptic.yaml:3', number: 1 }],
});

test('a kept sign-in is that of one user with one credential, and its file does not say which', () => {
  const credentials = { username: 'ada', password: 'tide' };
  const file = keptFile(signIn('ada'), NO_ACCESS);
  expect(keptFile(signIn('ada'), NO_ACCESS)).toBe(file);
  const others = [
    keptFile(signIn('bo'), NO_ACCESS),
    keptFile(signIn('ada'), { ...NO_ACCESS, credentials }),
    keptFile(signIn('ada'), { ...NO_ACCESS, credentials: { ...credentials, password: 'ebb' } }),
  ];
  expect(new Set([file, ...others]).size).toBe(4);
  for (const each of [file, ...others]) expect(each).not.toMatch(/ada|tide|ebb/);
});
