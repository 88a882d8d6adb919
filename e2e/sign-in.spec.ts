import { Secret, TOTP } from 'otpauth';
import { expect, signIn, test } from './test.ts';

/* The ways in besides a password: an authenticator, recovery codes, a passkey. */

test('with an authenticator, signing in takes its code; a recovery code stands in for it', async ({
  page,
  empty,
}) => {
  await signIn(page, empty, '/settings/account');
  const section = page.locator('section', { has: page.getByRole('heading', { name: 'Second factor' }) });
  await section.getByLabel('Your password, to set it up').fill(empty.password);
  await section.getByRole('button', { name: 'Set up an authenticator' }).click();
  const secret = await section.locator('.key').textContent();
  const totp = new TOTP({ secret: Secret.fromBase32(secret!) });
  const at = Date.now();
  await section.getByLabel('The six digits it shows').fill('12');
  await section.getByRole('button', { name: 'Turn it on' }).click();
  await expect(section.getByText(/at least 6|characters/).first()).toBeVisible();
  await section.getByLabel('The six digits it shows').fill(totp.generate({ timestamp: at }));
  await section.getByRole('button', { name: 'Turn it on' }).click();
  await expect(section.locator('.codes li')).toHaveCount(10);
  const recovery = (await section.locator('.codes li').allTextContents()).map((text) => text.trim());
  await section.getByRole('button', { name: 'Done' }).click();
  await expect(section.getByText('10 of 10 recovery codes left')).toBeVisible();

  await page.context().clearCookies();
  await page.goto(`${empty.origin}/sign-in`);
  await page.getByLabel('E-mail').fill(empty.email);
  await page.getByLabel('Password').fill(empty.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByLabel('Code')).toBeFocused();
  // The code that turned it on was used.
  await page.getByLabel('Code').fill(totp.generate({ timestamp: at }));
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Each code is good once' })).toBeVisible();
  await page.getByLabel('Code').fill(recovery[0]!);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Today');
  await page.goto(`${empty.origin}/settings/account`);
  await expect(section.getByText('9 of 10 recovery codes left')).toBeVisible();
  await section.getByLabel('Your password, to change it').fill(empty.password);
  await section.getByRole('button', { name: 'Turn it off' }).click();
  await expect(section.getByRole('button', { name: 'Set up an authenticator' })).toBeVisible();
});

test('a passkey is added and signs in without a password, until it is removed', async ({ page, empty }) => {
  // Authenticators know sites by names, not by addresses.
  const origin = empty.origin.replace('127.0.0.1', 'localhost');
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('WebAuthn.enable');
  await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await signIn(page, { ...empty, origin }, '/settings/account');
  const section = page.locator('section', { has: page.getByRole('heading', { name: 'Passkeys' }) });
  await section.getByLabel('For which device').fill('Rack-room tablet');
  await section.getByLabel('Your password, to add it').fill('not this one');
  await section.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(section.getByText('is not your password').first()).toBeVisible();
  await section.getByLabel('Your password, to add it').fill(empty.password);
  await section.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(section.getByText('Rack-room tablet')).toBeVisible();
  await expect(section.getByText('not used yet')).toBeVisible();

  await page.context().clearCookies();
  await page.goto(`${origin}/sign-in`);
  const asked = page.waitForRequest((request) => request.url().endsWith('/session/passkey'));
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Today');
  // What the authenticator answered once lets nobody in a second time.
  const again = await page.request.post(`${origin}/api/v1/session/passkey`, {
    data: (await asked).postDataJSON() as object,
  });
  expect(again.status()).toBe(401);

  await page.goto(`${origin}/settings/account`);
  await expect(section.getByText(/, used /)).toBeVisible();
  await section.getByRole('button', { name: 'Remove Rack-room tablet' }).click();
  await expect(section.getByText('Rack-room tablet')).toHaveCount(0);
  await page.context().clearCookies();
  await page.goto(`${origin}/sign-in`);
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'not known here' })).toBeVisible();
});
