import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { instrumentById } from '@zelpit/core/fingering';
import { musicOfLine } from '@zelpit/core/line';
import { RunnerDrawingComponent } from './runner-drawing.component';

async function drawing(beat: number | undefined, times = 4): Promise<ComponentFixture<RunnerDrawingComponent>> {
  const fixture = TestBed.createComponent(RunnerDrawingComponent);
  fixture.componentRef.setInput('instrument', instrumentById('practice-chanter'));
  fixture.componentRef.setInput('music', musicOfLine(instrumentById('practice-chanter'), { home: 'c', other: 'e' }));
  fixture.componentRef.setInput('about', 'C and E');
  fixture.componentRef.setInput('times', times);
  fixture.componentRef.setInput('beat', beat);
  await fixture.whenStable();
  return fixture;
}

const letters = (fixture: ComponentFixture<RunnerDrawingComponent>): string[] =>
  [...(fixture.nativeElement as HTMLElement).querySelectorAll('.runner-letter')]
    .map((letter) => letter.textContent?.trim() ?? '')
    .filter((letter) => letter !== '');
const pillar = (fixture: ComponentFixture<RunnerDrawingComponent>): string =>
  (fixture.nativeElement as HTMLElement).querySelector('rect[class^="pillar"]')?.getAttribute('class') ?? '';

describe('RunnerDrawingComponent', () => {
  it('waits with an empty frame before the start and while counting in', async () => {
    expect(pillar(await drawing(undefined))).toBe('pillar-empty');
    expect(pillar(await drawing(-2))).toBe('pillar-empty');
    expect(pillar(await drawing(0.5))).toBe('pillar');
  });

  it('begins with the home note and goes back and forth', async () => {
    expect(letters(await drawing(undefined)).slice(0, 4)).toEqual(['C', 'E', 'C', 'E']);
  });

  it('draws only what is in sight, at the start, in the middle and at the end', async () => {
    for (const beat of [0, 31.5, 63.9]) expect(letters(await drawing(beat)).length).toBeLessThan(12);
    expect(letters(await drawing(63.9)).at(-1)).toBe('E');
  });

  it('names the hands, the thumb apart', async () => {
    const fixture = await drawing(3);
    expect([...(fixture.nativeElement as HTMLElement).querySelectorAll('.runner-hand')].map((hand) => hand.textContent)).toEqual(['T', 'L', 'R']);
    expect((fixture.nativeElement as HTMLElement).querySelector('svg')?.getAttribute('aria-label')).toBe('Finger lanes of C and E');
  });
});
