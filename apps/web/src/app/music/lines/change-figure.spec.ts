import { TestBed } from '@angular/core/testing';
import { Component, input } from '@angular/core';
import { instrumentById } from '@zelpit/core/fingering';
import { describedLine, type DescribedLine, type Line } from '@zelpit/core/line';
import { movementLines } from '@zelpit/core/line-sets';
import { movementById, usualMovementSettings } from '@zelpit/core/movement';
import { ChangeFigureComponent } from './change-figure.component';

@Component({ imports: [ChangeFigureComponent], template: '<svg><g zpChangeFigure [line]="line()" /></svg>' })
class HostComponent {
  readonly line = input.required<DescribedLine>();
}

const chanter = instrumentById('practice-chanter');

async function drawn(line: Line): Promise<{ readonly letters: string[]; readonly hasMark: boolean }> {
  const fixture = TestBed.createComponent(HostComponent);
  fixture.componentRef.setInput('line', describedLine(chanter, line));
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  return {
    letters: [...element.querySelectorAll('text[text-anchor="middle"]')].map((text) => text.textContent?.trim() ?? ''),
    hasMark: element.querySelector('g[zpMark]') !== null,
  };
}

describe('the figure of a line', () => {
  it('is a change between its two notes, with its mark', async () => {
    expect(await drawn({ home: 'c', other: 'e' })).toEqual({ letters: ['C', 'E', 'G'], hasMark: true });
  });

  it.each([
    ['taorluath', 'low-a', ['G', 'd', 'G', 'e']],
    ['grip', 'e', ['G', 'd', 'G']],
    ['doubling', 'c', ['g', 'c', 'd']],
  ])('is the elements of a %s, not a bare change', async (id, after, elements) => {
    const movement = movementById(id);
    const [line] = movementLines(chanter, { kind: 'repeated', movement, before: 'b', after, settings: usualMovementSettings }).lines;
    const { letters, hasMark } = await drawn(line);
    expect(letters.slice(-elements.length)).toEqual(elements);
    expect(hasMark).toBe(false);
  });
});
