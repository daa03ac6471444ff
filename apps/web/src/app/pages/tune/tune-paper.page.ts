import { Component, computed, effect, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement } from '@zelpit/contract';
import { arrangedTune, newNotesOf } from '@zelpit/core/arrange';
import { excerptOf, hardestPair } from '@zelpit/core/excerpt';
import { roundOf, type Form } from '@zelpit/core/form';
import type { Tune } from '@zelpit/core/tune';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { InstrumentShelf, isAlike, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import type { SheetOnPaper } from '../../music/paper/paper-layout';
import { keptPaperSize } from '../../music/paper/paper-size';
import { PaperDeskComponent } from '../../music/paper/paper-desk.component';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { catchError, forkJoin, map, of } from 'rxjs';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { formOfTune } from '../../documents/tune/form-of-tune';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';

/** Sheets in which its code is looked for. */
const sheetsLookedAt = 5;
/** Staff of 46 px, 12 mm, for young eyes and a stand. */
const pupilScale = 1.48;

/** Names of phrases where they are written first: the letter of their part before the first of it. */
function phrasesOf({ sections, parts, measures }: Form): ReadonlyMap<number, string> {
  if (sections.length < 2) return new Map();
  return new Map(
    sections.map(({ number, part, first }, index) => {
      const { bar, lead } = measures[first];
      const isFirst = sections[index - 1]?.part !== part;
      return [lead.at(0) ?? bar, isFirst ? `${parts[part].letter} ${number}` : String(number)];
    }),
  );
}

/** One of a class, and how they play the tune. */
interface ClassMember {
  readonly alias: string;
  readonly arrangement: Arrangement;
}

/** The same music once, with the names of all who play it. */
function sharedMusic(all: readonly { readonly alias: string; readonly music: Tune }[]): readonly { readonly names: readonly string[]; readonly music: Tune }[] {
  const pages = new Map<string, { names: string[]; music: Tune }>();
  for (const { alias, music } of all) {
    const text = excerptOf('', '', music).abc;
    const page = pages.get(text);
    if (page === undefined) pages.set(text, { names: [alias], music });
    else page.names.push(alias);
  }
  return [...pages.values()];
}

/** A tune on paper for one pupil, or for a class: a large staff, letters or words, rings and fingers for the new notes only. */
@Component({
  selector: 'zp-tune-paper-page',
  imports: [SentenceComponent, RouterLink, PaperDeskComponent, ChooserComponent, ForWhomComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" [routerLink]="['/tunes', id()]">{{ opened()?.detail?.title ?? 'A tune' }}</a>
        @if (ofClass()) {
          <span class="quiet"> for </span>
        } @else {
          <zp-for-whom [hasInstrument]="false" /><span class="quiet">, or </span>
        }
        <button type="button" class="chooser-word" [attr.aria-pressed]="isForClass()" (click)="toggleClass()">
          {{ isForClass() ? 'the class' : 'for the class' }}
        </button>
        <span class="quiet"> on </span><span>{{ size().name }} paper</span><span class="quiet">, below the notes: </span>
        <zp-chooser purpose="Under the notes" [value]="words.kind()" [choices]="words.choices" (valueChange)="words.choose($event)" />
        @if (voiceChoices().length > 0) {
          <span class="quiet">, for </span><zp-chooser purpose="Voice" [value]="voice()" [choices]="voiceChoices()" (valueChange)="voice.set($event)" />
        }
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">To the tunes</a>
        </main>
      } @else if (onPaper(); as drawn) {
        <zp-paper-desk [sheet]="drawn" [(size)]="size" [hint]="newText()" (back)="back()" />
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class TunePaperPage {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly sheets = inject(SheetsService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  protected readonly words = inject(LineWordsChoice);
  readonly id = input.required<string>();

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  private readonly arrangement = signal<Arrangement>(noArrangement);
  protected readonly fault = signal('');
  protected readonly size = signal(keptPaperSize());

  private readonly played = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : arrangedTune(opened.instrument, opened.tune, this.arrangement());
  });
  private readonly unknown = computed(() => {
    const [opened, played] = [this.opened(), this.played()];
    return opened === undefined || played === undefined ? [] : newNotesOf(opened.instrument, played, opened.held?.knownNotes ?? []);
  });
  /** Which voice of a round this page is for, from 1. */
  protected readonly voice = linkedSignal(() => Math.max(1, this.arrangement().voice));
  private readonly round = computed(() => {
    const [opened, played] = [this.opened(), this.played()];
    const round = opened?.detail.about.round;
    if (opened === undefined || played === undefined || round == null) return undefined;
    const found = roundOf(formOfTune({ ...opened, tune: played }), round.voices, round.after ?? undefined);
    return found.kind === 'round' ? found : undefined;
  });
  protected readonly voiceChoices = computed(() =>
    (this.round()?.entries ?? []).map(({ voice }): Choice<number> => ({ value: voice, label: `voice ${voice}` })),
  );
  private readonly roundText = computed(() => {
    const round = this.round();
    const own = round?.entries.find(({ voice }) => voice === this.voice());
    if (round === undefined || own === undefined) return '';
    const text = `A round in ${round.entries.length} voices. You are voice ${own.voice}`;
    return own.voice === 1 ? `${text}: you begin.` : `${text}: begin when the first voice is at bar ${own.bar}.`;
  });
  protected readonly isForClass = signal(false);
  /** All who play such an instrument, each as they play this tune; undefined where the page is for one. */
  protected readonly ofClass = signal<readonly ClassMember[] | undefined>(undefined);
  /** The code under which the tablet opens it, where the tune is on one of the student's sheets. */
  private readonly code = signal('');

  protected readonly newText = computed(() => {
    const members = this.ofClass();
    if (members !== undefined)
      return members.length === 0 ? 'Nobody has an instrument for this tune yet.' : 'Each way of playing it stands under the names of all who play it so.';
    const count = this.unknown().length;
    if (count === 0) return 'No note is new, so the whole page is music.';
    return count === 1 ? 'The new note stands at the top and is ringed in the music.' : 'New notes stand at the top and are ringed in the music.';
  });

  protected readonly onPaper = computed((): SheetOnPaper | undefined => {
    const [opened, played] = [this.opened(), this.played()];
    if (opened === undefined || played === undefined) return undefined;
    const { instrument, detail } = opened;
    const student = this.state.student();
    const [home, other] = hardestPair(instrument, played);
    const excerpt = excerptOf(detail.title, '', played);
    const about = [...(student === undefined ? [] : [`for ${student.alias}`]), nameOf(instrument)].join(', ');
    const note = this.roundText();
    const members = this.ofClass();
    if (members !== undefined) {
      const pages = sharedMusic(
        members.map(({ alias, arrangement }) => ({
          alias: this.aliasWithVoice(alias, arrangement),
          music: arrangedTune(instrument, opened.tune, arrangement),
        })),
      );
      return {
        ...{
          title: detail.title,
          about: `for ${members.map(({ alias }) => alias).join(', ') || 'the class'}, ${nameOf(instrument)}.`,
          note: '',
          instrument,
          words: this.words.words(),
          isOnePiece: true,
          tuneScale: 1,
        },
        lines: pages.map(({ names, music }) => {
          const [home, other] = hardestPair(instrument, music);
          return { kind: 'tune', home, other, repetitions: 1, tempo: null, point: names.join(', '), code: '', excerpt: excerptOf(detail.title, '', music) };
        }),
      };
    }
    return {
      ...{ title: detail.title, about: `${about}.`, note, instrument, words: this.words.words(), isOnePiece: true, tuneScale: pupilScale },
      unknown: new Set(this.unknown()),
      phrases: phrasesOf(formOfTune({ ...opened, tune: played })),
      lines: [{ kind: 'tune', home, other, repetitions: 1, tempo: null, point: '', code: this.code(), excerpt }],
    };
  });

  /** "Oda (voice 2)" in a round. */
  private aliasWithVoice(alias: string, { voice }: Arrangement): string {
    return this.round() === undefined || voice === 0 ? alias : `${alias} (voice ${voice})`;
  }

  constructor() {
    effect(() => {
      const id = this.id();
      const student = this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => {
        this.tunes.open(id).subscribe({
          next: (opened) => {
            this.opened.set(opened);
            if (student !== undefined) this.findCode(student.id);
          },
          error: (error: unknown) => this.fault.set(messageOf(error)),
        });
        this.arrangement.set(noArrangement);
        if (student !== undefined)
          this.arrangements
            .get(id, student.id)
            .subscribe({ next: ({ arrangement }) => this.arrangement.set(arrangement), error: (error: unknown) => this.notices.fault(error) });
      });
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  /** Looks for the tune among the sheets that were changed last. */
  private findCode(student: string): void {
    this.code.set('');
    this.sheets
      .ofStudent(student, sheetsLookedAt)
      .pipe(catchError(() => of([])))
      .subscribe((sheets) => {
        const title = this.opened()?.detail.title;
        const items = sheets.flatMap(({ tune, lines }) =>
          lines.filter((line) => line.kind === 'tune' && (line.excerpt?.tune === title || tune?.id === this.id())),
        );
        this.code.set(items.at(0)?.code ?? '');
      });
  }

  /** One page for all who play such an instrument, or one for the student again. */
  protected toggleClass(): void {
    const instrument = this.opened()?.instrument;
    this.isForClass.update((on) => !on);
    this.ofClass.set(undefined);
    if (instrument === undefined || !this.isForClass()) return;
    const alike = new Set(
      this.shelf.held().flatMap(({ owner, model }) => (owner.kind === 'student' && isAlike(this.shelf.known(model), instrument) ? [owner.id] : [])),
    );
    const members = this.state.students().filter(({ id }) => alike.has(id));
    if (members.length === 0) {
      this.ofClass.set([]);
      return;
    }
    forkJoin(members.map(({ id, alias }) => this.arrangements.get(this.id(), id).pipe(map(({ arrangement }) => ({ alias, arrangement }))))).subscribe({
      next: (all) => this.ofClass.set(all),
      error: (error: unknown) => {
        this.isForClass.set(false);
        this.notices.fault(error);
      },
    });
  }

  protected back(): void {
    void this.router.navigate(['/tunes', this.id()]);
  }
}
