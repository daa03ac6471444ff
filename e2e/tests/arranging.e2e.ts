import type { Page } from '@playwright/test';
import { choose, expect, openTune, signIn, test } from './as-teacher';

const march = 'X:1\nT:The Snail Post\nR:march\nM:2/4\nL:1/8\nK:HP\ne|{ag}a>f {gef}e{gcd}c|{Gdc}d>B {gBd}B2|\n';

async function openPage(page: Page, title: string, last: string, student: string): Promise<void> {
  await openTune(page, title);
  await choose(page, 'Student', student);
  await page.goto(`${page.url()}/${last}`);
}

test('from a plain ABC to a bar on a student’s sheet in six actions', async ({ page }) => {
  await signIn(page);
  let actions = 0;
  const act = async (what: Promise<unknown>): Promise<void> => {
    actions += 1;
    await what;
  };
  await act(page.getByRole('button', { name: 'Paste ABC' }).click());
  await act(page.getByLabel(/ABC text of one or more tunes/).fill(march));
  await act(page.getByRole('button', { name: 'Add', exact: true }).click());
  await act(page.getByRole('link', { name: 'The Snail Post' }).first().click());
  await expect(page.getByRole('link', { name: /Take bar \d+ apart/ })).toBeVisible();
  await act(page.keyboard.press('o'));
  await expect(page.getByRole('button', { name: /^Put this bar on/ })).toBeEnabled();
  await act(page.keyboard.press('Enter'));
  await expect(page.getByText(/^On .+’s sheet\.$/)).toBeVisible();
  expect(actions).toBeLessThanOrEqual(6);
});

test.describe('a bar taken apart', () => {
  test.beforeEach(async ({ page }) => {
    await openPage(page, 'The Paper Lighthouse', 'bars/1-1', 'Pim');
    await expect(page.getByRole('button', { name: '1 bare notes' })).toBeVisible();
  });

  test('has four rows, and says of each what it is about', async ({ page }) => {
    const script = page.getByRole('region', { name: 'What is said of it' });
    await expect(script).toContainText('Left ring lands. Everything else stays.');
    await page.keyboard.press('3');
    await expect(page.getByRole('button', { name: '3 in full' })).toHaveAttribute('aria-pressed', 'true');
    await expect(script).toContainText('Doubling on C');
    await page.keyboard.press('4');
    await expect(script).toContainText('One on low A and two on C.');
    await expect(page.locator('.count-word.is-beat').first()).toHaveText('one');
  });

  test('goes onto the sheet with its steps, is practised step by step, and comes off again', async ({ page }) => {
    await page.keyboard.press('Enter');
    await expect(page.getByText('On Pim’s sheet.')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Bar 1 of The Paper Lighthouse' })).toBeVisible();
    await page.getByRole('link', { name: /Practise Bar 1 of The Paper Lighthouse/ }).click();
    const steps = page.getByRole('group', { name: 'Step' });
    await expect(steps.getByRole('button')).toHaveCount(4);
    await page.keyboard.press('2');
    await expect(steps.getByRole('button', { name: /one grace note/ })).toHaveAttribute('aria-pressed', 'true');
    await page.goBack();
    await page.getByRole('button', { name: 'Take Bar 1 of The Paper Lighthouse off the sheet' }).click();
    await expect(page.getByRole('heading', { name: 'Bar 1 of The Paper Lighthouse' })).toBeHidden();
  });

  test('keeps a simpler layer for this student, and a script of one’s own, read against the fingers', async ({ page }) => {
    const doubling = page.getByRole('button', { name: /^doubling: choose/ }).first();
    await doubling.click();
    await expect(page.getByRole('button', { name: /^doubling with strike: choose/ }).first()).toBeVisible();
    await page
      .getByRole('button', { name: /^doubling with strike: choose/ })
      .first()
      .click();
    await page.reload();
    await expect(page.getByRole('button', { name: /^no grace note: choose/ }).first()).toBeVisible();
    await expect(page.getByRole('button', { name: /^doubling/ })).toHaveCount(0);
    await page.keyboard.press('e');
    await page.getByLabel(/The script, a paragraph a thing/).fill('E to low A: Right ring lands.');
    await page.getByRole('button', { name: 'Save the script' }).click();
    await expect(page.getByText(/the script says that right ring lands; it stays/)).toBeVisible();
    await page.reload();
    await expect(page.getByText('E to low A: Right ring lands.')).toBeVisible();
    await page.keyboard.press('e');
    await page.getByLabel(/The script, a paragraph a thing/).fill('');
    await page.getByRole('button', { name: 'Save the script' }).click();
    await expect(page.getByRole('region', { name: 'What is said of it' })).toContainText('Left ring lands.');
  });

  test('plays, and hears taps', async ({ page }) => {
    await page.keyboard.press('4');
    await page.getByRole('button', { name: /Play row 4/ }).click();
    await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
    await expect.poll(() => page.locator('.chunk-svg .pillar-empty').count()).toBeGreaterThan(0);
    await page.keyboard.press('t');
    await expect(page.getByText(/^1 tap, /)).toBeVisible();
    await page.keyboard.press(' ');
    await expect(page.getByRole('button', { name: /Play row 4/ })).toBeVisible();
  });

  test('goes on to the next bar, joins it, and says where there is none', async ({ page }) => {
    await page.keyboard.press('PageDown');
    await expect(page).toHaveURL(/bars\/2-2$/);
    await page.keyboard.press('n');
    await expect(page.getByRole('button', { name: 'Place: Bars 2 and 3' })).toBeVisible();
    // A stretch of one's own: from the second change of these bars to the one after it.
    await page.keyboard.press('ArrowRight');
    await page.getByRole('button', { name: 'Begin here' }).click();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('d');
    await expect(page).toHaveURL(/bars\/n\d+-\d+$/);
    await expect(page.getByRole('button', { name: /^Place: .+ in bar 2/ })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Put these notes on Pim’s sheet' })).toBeEnabled();
    await page.keyboard.press('n');
    await expect(page.getByRole('button', { name: /^Place: Bars? 2/ })).toBeVisible();
    await page.goto(page.url().replace(/bars.*/, 'bars/99-99'));
    await expect(page.getByText('There is no bar 99 with notes: the tune has 16.')).toBeVisible();
  });
});

test('ornaments become part of the text where somebody wants that, and can be taken out again', async ({ page }) => {
  await openPage(page, 'Slow Snow on Vell Street', 'arrange', 'Pim');
  await page.getByRole('button', { name: 'session' }).click();
  await page.getByRole('button', { name: 'Into the text' }).click();
  await expect(page.getByText('The tune’s text is as arranged now.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Nine notes, one key: it stays as written.')).toBeVisible();
});

test('a tune is arranged for one student and stays as written', async ({ page }) => {
  await openPage(page, 'Hymn for the Lamplighter', 'arrange', 'Wren');
  await expect(page.getByText('Play it in G, up a fourth.')).toBeVisible();
  await expect(page.getByRole('row', { name: /D as written.*2 notes too low.*does not fit/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /^G up a fourth/ })).toHaveClass(/is-chosen/);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Kept for Wren. The tune itself stays as written.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('row', { name: /^G up a fourth/ })).toHaveClass(/is-chosen/);
  await page.keyboard.press('i');
  await expect(page.getByText(/bar \d+: C becomes/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Tune: Hymn for the Lamplighter' })).toBeVisible();
  await expect(page.getByText('A below D cannot be played', { exact: false })).toBeVisible();
});

test('known notes find the next tune, and one more note opens others', async ({ page }) => {
  await signIn(page, '/tunes/next');
  await choose(page, 'Student', 'Oda');
  const lists = page.getByRole('region', { name: 'Tunes' });
  await expect(page.getByText('One new note opens 2 tunes: low E.')).toBeVisible();
  await expect(lists.getByRole('link', { name: 'Buttons on the Stair' })).toBeVisible();
  await expect(lists.getByText('After another note · 1 tune')).toBeVisible();
  await page.getByRole('button', { name: 'Meter: any meter' }).click();
  await page.getByRole('menuitem', { name: '3/4' }).click();
  await expect(lists.getByRole('link')).toHaveText(["The Goose's Umbrella"]);
  await choose(page, 'Lowest note', 'A');
  await expect(lists.getByRole('link')).toHaveCount(0);
});

test('a phrase in another rhythm is kept for a class, and a keep is taken back', async ({ page }) => {
  await signIn(page);
  const { token } = (await (await page.request.get('/api/session')).json()) as { token: string };
  const headers = { 'x-zelpit-token': token };
  const { id } = (await (await page.request.post('/api/students', { data: { alias: 'Sorrel' }, headers })).json()) as { id: string };
  const held = {
    studentId: id,
    model: 'ocarina-12-c-split',
    hands: 'left-on-top',
    tuning: { kind: 'chart' },
    schools: {},
    referenceHertz: null,
    knownNotes: [],
  };
  expect((await page.request.post('/api/instruments', { data: { ...held, name: 'Sorrel’s ocarina', note: '' }, headers })).status()).toBe(201);
  await openPage(page, 'Moth at the Window', 'arrange', 'Jorun');
  await page.getByRole('button', { name: 'dot and cut' }).click();
  await page.getByRole('button', { name: /^Keep for all \d who play it/ }).click();
  await expect(page.getByText(/^Kept for \d students\./)).toBeVisible();
  await page.goto('/students');
  await page.getByRole('button', { name: 'Tunes of Sorrel' }).click();
  const tunes = page.getByRole('list', { name: 'Tunes as Sorrel plays them' });
  await expect(tunes).toContainText(/Moth at the Window: \d bars in another rhythm/);
  await page.goBack();
  await page.getByRole('button', { name: 'Leave as written' }).click();
  await page.getByRole('button', { name: /^Keep for all \d who play it/ }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'dot and cut' })).toHaveAttribute('aria-pressed', 'true');
});

test.describe('playing along', () => {
  test('one key starts and stops, and it waits after a phrase', async ({ page }) => {
    await openPage(page, 'Buttons on the Stair', 'along', 'Oda');
    await expect(page.getByText('One key starts it', { exact: false })).toBeVisible();
    await page.keyboard.press(' ');
    await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
    await page.keyboard.press(' ');
    await expect(page.getByRole('button', { name: 'Start' })).toBeVisible();
    await page.getByRole('button', { name: 'Click: the click on the beats' }).click();
    await page.getByRole('menuitem', { name: 'the click on halves of the beat' }).click();
    await page.getByRole('button', { name: 'Feel: as written' }).click();
    await page.getByRole('menuitem', { name: 'swung' }).click();
    await page.keyboard.press(' ');
    await expect.poll(() => page.locator('.pillar-move').count()).toBeGreaterThan(0);
    await page.keyboard.press('Escape');
    await expect(page).toHaveURL(/tunes\/[^/]+$/);
  });

  test('a round asks for voices, and says when each enters', async ({ page }) => {
    await openPage(page, 'The Tall Kettle', 'about', 'Oda');
    await page.getByLabel('Voices').selectOption('4');
    await expect(page.getByText('Voice 1 begins, voice 2 at bar 3 of the first', { exact: false })).toBeVisible();
    await expect(page.getByText('Saved with the tune.')).toBeVisible();
    await page.goto(page.url().replace(/about$/, 'along'));
    const kept = page.waitForResponse((response) => response.request().method() === 'PUT' && response.url().includes('arrangement'));
    await choose(page, 'Voice', 'as a round, mine is voice 2');
    await kept;
    await page.reload();
    await expect(page.getByRole('button', { name: 'Voice: as a round, mine is voice 2' })).toBeVisible();
    await page.goto(page.url().replace(/along$/, 'paper'));
    await expect(page.getByRole('button', { name: 'Voice: voice 2' })).toBeVisible();
    await page.goto(page.url().replace(/paper$/, 'about'));
    await page.getByLabel('Voices').selectOption('3');
    await expect(page.getByText('cannot be shared out among 3 voices', { exact: false })).toBeVisible();
    await page.getByLabel('Its form, letters with the number of their bars').fill('A4 B9');
    await page.getByLabel('Its form, letters with the number of their bars').blur();
    await expect(page.getByText('These parts have 13 bars together; the tune has 8', { exact: false })).toBeVisible();
  });
});

test('a tune on paper for one pupil, and one page for the class with everybody’s own way; it stands among the student’s tunes', async ({ page }) => {
  await openPage(page, 'Hymn for the Lamplighter', 'arrange', 'Wren');
  const [row, keep] = [page.getByRole('row', { name: /^G up a fourth/ }), page.getByRole('button', { name: /^Keep for Wren/ })];
  // Another test of this studio may have kept it before.
  await page.getByRole('button', { name: /^G up a fourth/ }).click();
  await expect(row).toHaveClass(/is-chosen/);
  if (await keep.isEnabled()) await keep.click();
  await expect(keep).toBeDisabled();
  await page.goto(page.url().replace(/arrange$/, 'paper'));
  const drawing = page.locator('svg.sheet-page').first();
  // Phrases are named over the music, as on the tune's own page.
  await expect(drawing.getByText('A 1', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'for the class' }).click();
  await expect(page.getByText('Each way of playing it stands under the names of all who play it so.')).toBeVisible();
  await expect(drawing.getByText(/^for .*Wren.*whistle/)).toBeVisible();
  await page.goto('/students');
  await page.getByRole('button', { name: 'Tunes of Wren' }).click();
  const tunes = page.getByRole('list', { name: 'Tunes as Wren plays them' });
  await expect(tunes).toContainText('Hymn for the Lamplighter: up a fourth');
  await page.getByLabel('Name or alias').first().fill('Nettle');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Tunes of Nettle' }).click();
  await expect(page.getByText('Nettle plays every tune as it is written. Arrange one, and it stands here.')).toBeVisible();
});
