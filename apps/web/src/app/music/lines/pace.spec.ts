import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { PaceComponent } from './pace.component';

async function pace(tempo: number | null): Promise<{ fixture: ComponentFixture<PaceComponent>; chosen: (number | null)[]; element: HTMLElement }> {
  const fixture = TestBed.createComponent(PaceComponent);
  const chosen: (number | null)[] = [];
  fixture.componentRef.setInput('name', 'pace');
  fixture.componentRef.setInput('forWhat', 'C to E');
  fixture.componentRef.setInput('tempo', tempo);
  fixture.componentInstance.chosen.subscribe((value) => chosen.push(value));
  await fixture.whenStable();
  return { fixture, chosen, element: fixture.nativeElement as HTMLElement };
}

const type = (field: HTMLInputElement | HTMLSelectElement, value: string): void => {
  field.value = value;
  field.dispatchEvent(new Event('change'));
};

describe('PaceComponent', () => {
  it('asks for no number while free, and starts slowly on the click', async () => {
    const { element, chosen } = await pace(null);
    expect(element.querySelector('input')).toBeNull();
    type(element.querySelector('select') as HTMLSelectElement, 'click');
    expect(chosen).toEqual([48]);
  });

  it('goes back to free', async () => {
    const { element, chosen } = await pace(60);
    type(element.querySelector('select') as HTMLSelectElement, 'free');
    expect(chosen).toEqual([null]);
  });

  it.each([
    ['72', 72],
    ['5', 20],
    ['999', 300],
    ['60.4', 60],
    ['', 60],
  ])('takes "%s" as %i beats a minute', async (typed, beats) => {
    const { element, chosen } = await pace(60);
    const field = element.querySelector('input') as HTMLInputElement;
    type(field, typed);
    expect(chosen).toEqual([beats]);
    expect(field.value).toBe(String(beats));
  });

  it('is labelled for those who do not see it', async () => {
    const { element } = await pace(60);
    expect(element.querySelector('label')?.getAttribute('for')).toBe('pace');
    expect(element.querySelector('input')?.getAttribute('aria-label')).toBe('Beats a minute for C to E');
  });
});
