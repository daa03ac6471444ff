import { computed, effect, inject, Injectable, signal, untracked, type OnDestroy } from '@angular/core';
import { longestWordSeconds, wordDays, type SpokenWord } from '@zelpit/contract';
import { waveFile } from '@zelpit/core/sound';
import { messageOf } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SpokenWordsService } from '../../studio/lessons/spoken-words.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { consentText, mayBeRecorded } from '../listening/recording-consent';
import { decodedFile, resampled, sampleRate, wholeSound } from '../listening/take-sound';
import { Microphone, MicrophoneFault, type Recording } from '../microphone/microphone.service';
import { Transport } from '../sound/transport.service';

/** Something that was said and has not reached the server yet. */
interface Unsent {
  readonly lessonId: string;
  readonly title: string;
  readonly seconds: number;
  readonly sound: Blob;
}

/** Words that are spoken in the lesson in hand; to be provided where a page is. */
@Injectable()
export class SpokenWords implements OnDestroy {
  private readonly service = inject(SpokenWordsService);
  private readonly notices = inject(NoticeService);
  private readonly state = inject(StudioState);
  private readonly microphone = inject(Microphone);
  private readonly transport = inject(Transport);

  private readonly lesson = signal<{ readonly id: string; readonly studentId: string } | undefined>(undefined);
  readonly all = signal<readonly SpokenWord[]>([]);
  readonly unsent = signal<readonly Unsent[]>([]);
  /** What is being spoken about; undefined where nothing is spoken. */
  readonly about = signal<string | undefined>(undefined);
  /** The word that is heard. */
  readonly heard = signal('');
  readonly seconds = this.microphone.seconds;
  private readonly student = computed(() => this.state.students().find(({ id }) => id === this.lesson()?.studentId));
  readonly isPossible = computed(() => this.student() !== undefined && mayBeRecorded(this.student()));
  /** Who agreed, and for how long it is kept; or whom to ask. */
  readonly consentText = computed(() => {
    const student = this.student();
    if (student === undefined) return '';
    const agreed = consentText(student, false);
    return student.consent === null ? agreed : `${agreed} It is kept for ${wordDays} days on the studio’s server, for whoever teaches here.`;
  });

  constructor() {
    effect(() => {
      if (!this.transport.isHolding()) untracked(() => this.heard.set(''));
    });
  }

  ngOnDestroy(): void {
    if (this.about() !== undefined) this.end();
  }

  /** Shows what was said in a lesson. */
  open(lesson: { readonly id: string; readonly studentId: string }): void {
    this.lesson.set(lesson);
    this.service.of(lesson.id).subscribe({
      next: (words) => this.all.set(words),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** Begins to listen to what is said about something, or ends it and keeps it. */
  toggle(title: string): void {
    if (this.about() !== undefined) this.end();
    else if (!this.isPossible()) this.notices.done(this.consentText());
    else this.begin(title);
  }

  /** Ends it, and keeps nothing. */
  discard(): void {
    this.about.set(undefined);
    void this.microphone.stop();
  }

  hear({ id }: SpokenWord): void {
    const wasHeard = this.heard() === id;
    this.transport.stop();
    if (wasHeard) return;
    this.service.sound(id).subscribe({
      next: (sound) =>
        void decodedFile(sound).then(
          (samples) => {
            this.transport.hold(wholeSound(samples));
            this.heard.set(id);
          },
          () => this.notices.done('This word could not be played.'),
        ),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  drop({ id }: SpokenWord): void {
    if (this.heard() === id) this.transport.stop();
    this.service.drop(id).subscribe({
      next: () => this.all.update((all) => all.filter((word) => word.id !== id)),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  send(word: Unsent): void {
    this.service.add(word.lessonId, word, word.sound).subscribe({
      next: (kept) => {
        this.unsent.update((all) => all.filter((each) => each !== word));
        this.all.update((all) => [...all, kept]);
      },
      error: (error: unknown) => {
        if (!this.unsent().includes(word)) this.unsent.update((all) => [...all, word]);
        this.notices.done(`What you said about ${word.title} is not kept yet. ${messageOf(error)}`);
      },
    });
  }

  private begin(title: string): void {
    this.transport.stop();
    this.about.set(title);
    this.microphone
      .start(longestWordSeconds, (recording) => void this.taken(recording))
      // Ended while the browser still asked whether it may: nothing listens on.
      .then(() => (this.about() === undefined ? void this.microphone.stop() : undefined))
      .catch((error: unknown) => {
        this.about.set(undefined);
        this.notices.done(error instanceof MicrophoneFault ? error.message : 'The recording could not begin. Try again.');
      });
  }

  private end(): void {
    void this.microphone.stop().then((recording) => (recording === undefined ? this.about.set(undefined) : this.taken(recording)));
  }

  private async taken(recording: Recording): Promise<void> {
    const [lesson, title] = [this.lesson(), this.about()];
    this.about.set(undefined);
    if (lesson === undefined || title === undefined) return;
    const samples = await resampled(recording.samples, recording.sampleRate);
    const seconds = Math.min(longestWordSeconds, Math.round(samples.length / sampleRate));
    if (seconds < 1) {
      this.notices.done('That was too short to be kept. Press V, speak, and press V again.');
      return;
    }
    this.send({ lessonId: lesson.id, title, seconds, sound: new Blob([waveFile(samples.subarray(0, longestWordSeconds * sampleRate), sampleRate)]) });
  }
}
