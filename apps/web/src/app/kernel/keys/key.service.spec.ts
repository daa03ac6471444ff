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
    release = TestBed.inject(KeyService).use([{ keys: [' ', 'l'], cap: 'L', label: 'Count', run: () => (count += 1) }]);
  });
  afterEach(() => release());

  it('runs what a key stands for, capital or not, and takes the key', () => {
    expect(press('l').defaultPrevented).toBe(true);
    press('L');
    press(' ');
    expect(count).toBe(3);
  });

  it('rests while somebody types, with a modifier, and on a button that takes the key itself', () => {
    press('l', add('input'));
    press('l', add('textarea'));
    press('l', document.body, { ctrlKey: true });
    press(' ', add('button'));
    expect(count).toBe(0);
    press('l', add('button'));
    expect(count).toBe(1);
  });

  it('lets the page in front go first and forgets it when it goes', () => {
    let front = 0;
    const releaseFront = TestBed.inject(KeyService).use([{ keys: ['l'], cap: 'L', label: 'Front', run: () => (front += 1) }]);
    press('l');
    releaseFront();
    press('l');
    expect([front, count]).toEqual([1, 1]);
  });
});
