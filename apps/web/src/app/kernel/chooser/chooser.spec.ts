import { TestBed } from '@angular/core/testing';
import { ChooserComponent, labelOf } from './chooser.component';

const twoOfOneName = [
  { value: 'first', label: 'Pim' },
  { value: 'second', label: 'Pim' },
];

describe('ChooserComponent', () => {
  it('marks only the one of two choices of one name that is chosen, and gives the value of what is taken', async () => {
    const fixture = TestBed.createComponent<ChooserComponent<string>>(ChooserComponent);
    fixture.componentRef.setInput('purpose', 'Student');
    fixture.componentRef.setInput('choices', twoOfOneName);
    fixture.componentRef.setInput('value', 'second');
    const taken: string[] = [];
    fixture.componentInstance.valueChange.subscribe((value) => taken.push(value));
    await fixture.whenStable();
    const items = [...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLButtonElement>('[role=menuitem]')];
    expect(items.map((item) => item.getAttribute('aria-current'))).toEqual([null, 'true']);
    items[0].click();
    expect(taken).toEqual(['first']);
  });

  it('shows nothing for what cannot be chosen', () => {
    expect(labelOf(twoOfOneName, 'third')).toBe('');
  });
});
