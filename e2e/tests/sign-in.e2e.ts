import { expect, signIn, test } from './as-teacher';

test('the demo shows its sign-in, leads to where one wanted to go, and signs out', async ({ page }) => {
  await page.goto('/students');
  await expect(page).toHaveURL(/\/sign-in\?to=%2Fstudents/);
  await expect(page.getByText('This is the demo studio.')).toBeVisible();
  await page.getByRole('button', { name: 'Sign in to the demo' }).click();
  await expect(page).toHaveURL(/\/students$/);
  await page.getByRole('link', { name: /All pages/ }).click();
  await page.getByRole('link', { name: 'Light and dark' }).click();
  await expect(page.getByText('Maren Tolvik is signed in as an owner of this studio.')).toBeVisible();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page).toHaveURL(/\/sign-in/);
  await page.goto('/tunes');
  await expect(page).toHaveURL(/\/sign-in/);
});

test('a wrong password is said plainly', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByLabel('E-mail address').fill('maren@orrin-stair.example');
  await page.getByLabel('Password').fill('not this');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText('The e-mail address or the password is wrong.');
});

test('students are added by alias, put away and brought back', async ({ page }) => {
  await signIn(page, '/students');
  await page.getByLabel('Name or alias').fill('Bracken');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Name and consent of Bracken' })).toBeVisible();
  await page.getByRole('button', { name: 'Put away Bracken' }).click();
  await expect(page.getByRole('button', { name: 'Name and consent of Bracken' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Name and consent of Bracken' })).toBeVisible();
  await page.getByLabel('Name or alias').fill('   ');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Enter a name or an alias.');
});

test('what was put away is found again and brought back; a student is deleted for good when that is asked for', async ({ page }) => {
  await signIn(page, '/students');
  await page.getByLabel('Name or alias').fill('Teasel');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Put away Teasel' }).click();
  await page.goto('/put-away');
  await page.getByRole('button', { name: 'Bring back Teasel' }).click();
  await expect(page.getByText('Teasel is back.')).toBeVisible();
  await page.goto('/students');
  await page.getByRole('button', { name: 'Put away Teasel' }).click();
  await page.goto('/places');
  await page.getByRole('link', { name: 'What was put away' }).click();
  await page.getByRole('button', { name: 'Delete Teasel for good' }).click();
  await expect(page.getByText('This cannot be undone.')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('This cannot be undone.')).toHaveCount(0);
  await page.getByRole('button', { name: 'Delete Teasel for good' }).click();
  await page.getByRole('button', { name: 'Delete Teasel', exact: true }).click();
  await expect(page.getByText('Teasel was deleted for good.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Bring back Teasel' })).toHaveCount(0);
});

test('the demo keeps its password and says why; signing out on all computers ends the session', async ({ page }) => {
  await signIn(page, '/studio');
  await page.getByLabel('Current password').fill('clean and slow');
  await page.getByLabel(/New password/).fill('something longer');
  await page.getByRole('button', { name: 'Change the password' }).click();
  await expect(page.getByRole('alert')).toContainText('The demo studio’s password cannot be changed');
  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(page).toHaveURL(/\/sign-in/);
  await page.goto('/tunes');
  await expect(page).toHaveURL(/\/sign-in/);
});
