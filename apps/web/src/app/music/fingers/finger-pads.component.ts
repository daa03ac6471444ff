import { Component, computed, HostListener, input, linkedSignal, model, output, signal } from '@angular/core';
import type { FingerId, Instrument } from '@zelpit/core/fingering';
import type { FingerEvent } from '@zelpit/core/playing';
import { capOf, fingerOfCode } from './finger-keys';

/** How a key stands for a finger: pressed it lifts it, or held it is down. */
export type KeyWay = 'inverted' | 'held';

/** What a finger has to do; nothing where it is right. */
function todoOf(isDown: boolean, isWanted: boolean): string {
  if (isDown === isWanted) return '';
  return isWanted ? 'put down' : 'lift';
}

/** Fingers as keys and as pads to touch: says how they lie and what each does, with its time. */
@Component({
  selector: 'zp-finger-pads',
  template: `
    <section aria-label="Fingers" class="finger-pads">
      @for (lane of lanes(); track lane.id) {
        <button
          type="button"
          class="finger-pad"
          [class.is-down]="lane.isDown"
          [class.is-wanted]="lane.isWanted"
          [class.is-thumb]="lane.isLastThumb"
          [attr.aria-label]="lane.text"
          [attr.aria-pressed]="lane.isDown"
          (pointerdown)="touch($event, lane.id, true)"
          (pointerup)="touch($event, lane.id, false)"
          (pointercancel)="touch($event, lane.id, false)"
          (contextmenu)="$event.preventDefault()"
        >
          <span>{{ lane.label }}</span>
          <kbd>{{ lane.cap }}</kbd>
          <small>{{ lane.todo }}</small>
        </button>
      }
    </section>
  `,
})
export class FingerPadsComponent {
  readonly instrument = input.required<Instrument>();
  /** Fingers that are to be down; nothing is asked for where it is absent. */
  readonly wanted = input<ReadonlySet<FingerId>>();
  /** False where nothing can be played just now. */
  readonly isLive = input(true);
  readonly way = model<KeyWay>('inverted');
  /** A finger came down or left. */
  readonly moved = output<FingerEvent>();
  /** The fingers as they lie, after each of them. */
  readonly lies = output<ReadonlySet<FingerId>>();

  /** Fingers whose key or touch is down. */
  private readonly pressed = linkedSignal({ source: () => this.instrument().id, computation: (): ReadonlySet<FingerId> => new Set() });
  /** The most keys that were down at once. */
  readonly mostPressed = signal(0);
  readonly lying = computed((): ReadonlySet<FingerId> => {
    const [pressed, isHeld] = [this.pressed(), this.way() === 'held'];
    const down = this.instrument().fingers.filter(({ id }) => pressed.has(id) === isHeld);
    return new Set(down.map(({ id }) => id));
  });

  protected readonly lanes = computed(() => {
    const [instrument, lying] = [this.instrument(), this.lying()];
    const wanted = this.wanted() ?? lying;
    const thumbs = instrument.fingers.filter(({ thumb }) => thumb);
    return instrument.fingers.map(({ id, label }) => {
      const [isDown, isWanted] = [lying.has(id), wanted.has(id)];
      const text = [label, isDown ? 'down' : 'off', todoOf(isDown, isWanted)].filter((part) => part !== '').join(', ');
      return { id, label, cap: capOf(id), isDown, isWanted, isLastThumb: thumbs[thumbs.length - 1]?.id === id, todo: todoOf(isDown, isWanted), text };
    });
  });

  @HostListener('document:keydown', ['$event'])
  protected keyDown(event: KeyboardEvent): void {
    this.key(event, true);
  }

  @HostListener('document:keyup', ['$event'])
  protected keyUp(event: KeyboardEvent): void {
    this.key(event, false);
  }

  /** A window that loses the focus hears of no key that is let go. */
  @HostListener('window:blur')
  protected letGo(): void {
    for (const finger of this.pressed()) this.press(finger, false, performance.now());
  }

  protected touch(event: PointerEvent, finger: FingerId, isDown: boolean): void {
    event.preventDefault();
    // A pad that is touched is a hole that is covered.
    this.way.set('held');
    this.press(finger, isDown, event.timeStamp);
  }

  private key(event: KeyboardEvent, isDown: boolean): void {
    const finger = fingerOfCode(event.code);
    const isTyping = event.target instanceof HTMLElement && event.target.matches('input, select, textarea, [role="menuitem"]');
    if (finger === undefined || event.repeat || event.ctrlKey || event.metaKey || event.altKey || isTyping) return;
    if (!this.instrument().fingers.some(({ id }) => id === finger)) return;
    // A key that is a finger presses no button.
    event.preventDefault();
    event.stopPropagation();
    this.press(finger, isDown, event.timeStamp);
  }

  private press(finger: FingerId, isPressed: boolean, ms: number): void {
    if (!this.isLive() || this.pressed().has(finger) === isPressed) return;
    const pressed = new Set(this.pressed());
    if (isPressed) pressed.add(finger);
    else pressed.delete(finger);
    this.pressed.set(pressed);
    this.mostPressed.update((seen) => Math.max(seen, pressed.size));
    this.moved.emit({ finger, isDown: (this.way() === 'held') === isPressed, ms });
    this.lies.emit(this.lying());
  }
}
