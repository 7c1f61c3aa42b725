import { faults } from './accessibility';
import { expect, Service, test } from './service';

const group = (name: string) => `CN=${name},OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example`;

test('somebody signs in with their directory account, with the role of their groups', async ({ page }) => {
  const service = await Service.start(
    '--JustRight:Demo',
    'true',
    '--JustRight:DirectorySignIn:Simulation',
    'fennmoor/staff',
    '--JustRight:DirectorySignIn:Roles:reader:0',
    group('vpn-drivers'),
  );
  try {
    await page.goto(`${service.address}/enter`);
    const form = page.getByRole('form', { name: 'Sign in with your account' });
    await expect(form.getByText('In the directory staff')).toBeVisible();
    expect(await faults(page, 'main')).toEqual([]);
    await form.getByLabel('Your logon name').fill('a.brandt');
    await form.getByRole('textbox', { name: 'Your password' }).fill('not mine');
    await form.getByRole('button', { name: 'Sign in with your account' }).click();
    await expect(form.getByText('Wrong name or password')).toBeVisible();
    await form.getByRole('textbox', { name: 'Your password' }).fill('simulated-a.brandt');
    await form.getByRole('button', { name: 'Sign in with your account' }).click();
    await page.getByRole('heading', { name: 'What needs you' }).waitFor();
    await expect(page.getByText('FENNMOOR\\a.brandt, reader')).toBeVisible();
    await page.goto(`${service.address}/installs/tallystick-dataroom`);
    await expect(page.getByRole('combobox', { name: 'Stage' })).toBeDisabled();
  } finally {
    await service.stop();
  }
});

test('a link that is opened in a tab at the door signs in', async ({ page, service }) => {
  await page.goto(`${service.address}/enter`);
  await page.getByRole('button', { name: 'Sign in', exact: true }).waitFor();
  await page.goto(service.link()); // only the fragment is another: nothing is loaded anew
  await expect(page.getByRole('heading', { name: 'What needs you' })).toBeVisible();
});
