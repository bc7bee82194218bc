import { expect, test } from '@playwright/test';
import { House, enterDemo, inKitchen, joinAs } from './house.ts';

let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

test('an owner gives the right to release and sign, lists links and withdraws one', async ({
  page,
  browser,
}) => {
  await enterDemo(page, house);
  const guest = await browser.newPage();
  await joinAs(house, page, guest, /^Cook/, 'Cy');
  // Without the right the gate says whom to ask, and offers nothing.
  await page.goto(`${house.url}/check`);
  const batch = page.getByRole('main').getByRole('table').getByRole('link').first();
  const href = (await batch.getAttribute('href')) ?? '';
  await guest.goto(house.url + href);
  await expect(guest.getByRole('heading', { name: 'The gate' })).toBeVisible();
  await expect(guest.getByRole('button', { name: /^Release / })).toHaveCount(0);

  await page.goto(`${house.url}/kitchen/people`);
  const may = page.getByRole('checkbox', { name: 'Cy may release and sign' });
  await expect(may).not.toBeChecked();
  await may.click();
  await expect(may).toBeChecked();
  await page.reload();
  await expect(may).toBeChecked();
  await page.getByRole('combobox', { name: 'Role of Cy' }).click();
  await page.getByRole('option', { name: 'viewer' }).click();
  await expect(page.getByText('Reads, and changes nothing.')).toBeVisible();

  await page.getByRole('button', { name: 'Make a link' }).click();
  await page.getByRole('button', { name: /^Withdraw the link for a cook/ }).click();
  await expect(page.getByText('No link is open.')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'The link, shown this once' })).toHaveCount(0);
  // Somebody taken out is out at once.
  await page.getByRole('button', { name: 'Take out Cy' }).click();
  await expect(page.getByRole('button', { name: 'Take out Cy' })).toHaveCount(0);
  await guest.reload();
  await expect(guest.getByText('You belong to no kitchen')).toBeVisible();
  await guest.close();
});

test('a person sees where they are signed in, ends a session, and sets a new password', async ({
  page,
  browser,
}) => {
  await enterDemo(page, house);
  const tablet = await (await browser.newContext()).newPage();
  await joinAs(house, page, tablet, /^Cook/, 'Dee');
  const laptop = await (await browser.newContext()).newPage();
  await laptop.goto(house.url);
  await laptop.getByRole('textbox', { name: 'Email' }).fill('dee@wrenfold.example');
  await laptop.getByLabel('Password').fill('a longer password');
  await laptop.getByRole('button', { name: 'Sign in' }).click();
  await expect(laptop.getByRole('heading', { name: 'Today' })).toBeVisible();

  await tablet.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await tablet.getByRole('menuitem', { name: 'Your password and devices' }).click();
  await expect(tablet.getByText('this device', { exact: true }).first()).toBeVisible();
  await tablet.getByRole('button', { name: /^End it/ }).click();
  await expect(tablet.getByRole('button', { name: /^End it/ })).toHaveCount(0);
  await laptop.reload();
  await expect(laptop.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  await tablet.getByLabel('Present password').fill('not this one');
  await tablet.getByLabel('New password').fill('a still longer one');
  await tablet.getByRole('button', { name: 'Change the password' }).click();
  await expect(tablet.getByText('That is not your present password.')).toBeVisible();
  await expect(tablet.getByLabel('New password')).toHaveValue('a still longer one');
  await tablet.getByLabel('Present password').fill('a longer password');
  await tablet.getByRole('button', { name: 'Change the password' }).click();
  await expect(tablet.getByText('Changed. Your other sessions are over.')).toBeVisible();
  await laptop.getByRole('textbox', { name: 'Email' }).fill('dee@wrenfold.example');
  await laptop.getByLabel('Password').fill('a still longer one');
  await laptop.getByRole('button', { name: 'Sign in' }).click();
  await expect(laptop.getByRole('heading', { name: 'Today' })).toBeVisible();
});

test('two tabs stay each in its own kitchen, and one that is not set up says so until it is', async ({
  page,
  context,
}) => {
  await enterDemo(page, house);
  await house.addKitchen('Second Kitchen', 'wren@wrenfold.example');
  await page.reload();
  const tab = await context.newPage();
  await tab.goto(`${house.url}/recipes`);
  await expect(tab.getByRole('button', { name: /Wrenfold Kitchen/ })).toBeVisible();
  await tab.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await tab.getByRole('menuitem', { name: 'Go to Second Kitchen' }).click();
  await expect(tab.getByText('This kitchen is not set up.')).toBeVisible();
  // The first tab goes on where it was, also after a reload.
  await page.goto(`${house.url}/recipes`);
  await expect(page.getByRole('link', { name: 'Red plum jam', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /Wrenfold Kitchen/ })).toBeVisible();

  await tab.getByRole('link', { name: 'Enter them' }).click();
  const altitude = tab.getByRole('textbox', { name: 'Altitude, feet' });
  await expect(altitude).toHaveValue('');
  await tab.getByRole('button', { name: 'Save the settings' }).click();
  await expect(altitude).toHaveAttribute('aria-invalid', 'true');
  await altitude.fill('0');
  await tab.getByRole('button', { name: 'Save the settings' }).click();
  await expect(tab.getByText('This kitchen is not set up.')).toHaveCount(0);
  await expect(tab.getByRole('button', { name: /Second Kitchen/ })).toContainText('0 ft');
});

test('a first click that is answered "busy" is sent again by itself, and done once', async ({ page }) => {
  await enterDemo(page, house);
  const address = await inKitchen(page, '/invitations');
  let turned = 0;
  await page.route(`**${address}`, async route => {
    if (route.request().method() !== 'POST' || turned++ > 1) return route.continue();
    // The first was turned away; the second was done, and its answer lost.
    if (turned === 1)
      return route.fulfill({
        status: 503,
        contentType: 'application/problem+json',
        body: JSON.stringify({
          code: 'busy',
          errors: [{ path: '', code: 'busy', what: 'Busy.', why: 'So.', next: 'Again.' }],
        }),
      });
    await route.fetch();
    return route.abort('connectionreset');
  });
  await page.goto(`${house.url}/kitchen/people`);
  await page.getByRole('button', { name: 'Make a link' }).click();
  await expect(page.getByRole('textbox', { name: 'The link, shown this once' })).toBeVisible();
  expect(turned).toBe(3);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Withdraw the link/ })).toHaveCount(1);
});
