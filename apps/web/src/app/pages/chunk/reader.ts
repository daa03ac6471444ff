import { Injectable, signal } from '@angular/core';

/** Reads sentences out with the browser's own voice. */
@Injectable()
export class Reader {
  readonly isReading = signal(false);

  /** Begins or stops; false where this browser has no voice. */
  toggle(text: string): boolean {
    if (this.isReading()) {
      this.stop();
      return true;
    }
    if (!('speechSynthesis' in globalThis) || text === '') return false;
    const spoken = new SpeechSynthesisUtterance(text);
    spoken.lang = 'en-GB';
    spoken.rate = 0.9;
    spoken.onend = () => this.isReading.set(false);
    spoken.onerror = () => this.isReading.set(false);
    this.isReading.set(true);
    speechSynthesis.speak(spoken);
    return true;
  }

  stop(): void {
    if (!this.isReading()) return;
    speechSynthesis.cancel();
    this.isReading.set(false);
  }
}
