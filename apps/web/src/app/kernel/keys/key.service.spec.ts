import { TestBed } from '@angular/core/testing';
import { KeyService } from './key.service';

const press = (key: string, target: Element = document.body, init: KeyboardEventInit = {}): KeyboardEvent => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init });
  target.dispatchEvent(event);
  return event;
};
const add = (tag: string): HTMLElement => document.body.appendChild(document.createElement(tag));

describe('KeyService', () => {
  let count: number;
  let release: () => void;
  beforeEach(() => {
    document.body.replaceChildren();
    count = 0;
    const add = (): void => void (count += 1);
    release = TestBed.inject(KeyService).use('line', { play: add, faulty: add, slower: add, faster: add });
  });
  afterEach(() => release());

  it('runs what a key stands for, capital or not, and takes the key', () => {
    expect(press('f').defaultPrevented).toBe(true);
    press('F');
    press(' ');
    expect(count).toBe(3);
  });

  it('rests while somebody types, with a modifier, and on a button that takes the key itself', () => {
    press('f', add('input'));
    press('f', add('textarea'));
    press('f', document.body, { ctrlKey: true });
    press(' ', add('button'));
    expect(count).toBe(0);
    press('f', add('button'));
    expect(count).toBe(1);
  });

  it('works on a box that was ticked, but for the space bar that ticks it', () => {
    const box = add('input') as HTMLInputElement;
    box.type = 'checkbox';
    press('f', box);
    expect(count).toBe(1);
    press(' ', box);
    expect(count).toBe(1);
    box.focus();
    box.dispatchEvent(new MouseEvent('click', { bubbles: true, detail: 1 }));
    expect(document.activeElement).not.toBe(box);
  });

  it('lets the page in front go first and forgets it when it goes', () => {
    let front = 0;
    const add = (): void => void (front += 1);
    const releaseFront = TestBed.inject(KeyService).use('changes', {
      ...{ play: add, clean: add, faulty: add, open: add, outOfOrder: add, slow: add, ear: add, onKeys: add },
    });
    press('f');
    releaseFront();
    press('f');
    expect([front, count]).toEqual([1, 1]);
  });
});
