import { Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { tuneUses, type TuneNotes, type TuneUse } from '@zelpit/contract';
import { hardPlaces, newNotesOf } from '@zelpit/core/arrange';
import { ZelpitFault } from '@zelpit/core/fault';
import { noteOf } from '@zelpit/core/fingering';
import { formOf, formText, isRound, measuresOf, meterText, readForm, roundOf, type Form } from '@zelpit/core/form';
import { messageOf } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { formOfTune } from '../../documents/tune/form-of-tune';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { HardCurveComponent } from './hard-curve.component';

const useLabels: Readonly<Record<TuneUse, string>> = { dancers: 'dancers', church: 'church', class: 'class', session: 'session' };

/** What a teacher says of a tune beside its text: its form, what it is for, what stands before and after it in a set, its round. */
@Component({
  selector: 'zp-tune-about',
  imports: [SentenceComponent, RouterLink, HardCurveComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <span>About </span>
        @if (opened(); as tune) {
          <a class="chooser-word" [routerLink]="['/tunes', id()]">{{ tune.detail.title }}</a>
        } @else {
          <span class="quiet">a tune</span>
        }
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">To the tunes</a>
        </main>
      } @else if (opened(); as tune) {
        <section class="band" aria-label="How it is built">
          <div class="band-said">
            <p class="band-todo">{{ form()?.sentences?.at(0) }}</p>
            <p class="band-else">{{ rest() }}</p>
          </div>
        </section>
        @if (hard(); as places) {
          <section class="layer pb-0" aria-label="What is hard in it">
            <h2 class="heading">{{ places.text }}</h2>
            <zp-hard-curve [bars]="places.bars" (chosen)="openBar($event)" />
            @if (places.breath; as breath) {
              <p class="mb-1">{{ breath.text }}</p>
            }
            @if (places.tooFast; as text) {
              <p class="mb-1">{{ text }}</p>
            }
            @if (places.comfort; as text) {
              <p class="mb-1">{{ text }}</p>
            }
            <p class="mb-0"><span class="quiet">It needs: </span>{{ places.skills.join('; ') }}.</p>
            @if (newNotes().length > 0) {
              <p class="mb-0">
                <span class="quiet">New for {{ state.student()?.alias ?? 'this student' }}: </span>{{ newNotes().join(', ') }}.
                <a class="word" [routerLink]="['/tunes', id(), 'new']">Spot the new notes</a>
              </p>
            }
          </section>
        }
        <main class="layer page-fill about-tune">
          <div>
            <label for="about-form">Its form, letters with the number of their bars</label>
            <input id="about-form" class="form-control" autocomplete="off" maxlength="400" [value]="shownForm()" (change)="setForm(typed($event))" />
            @if (formFault()) {
              <p class="fault-text" role="alert">{{ formFault() }}</p>
            } @else {
              <small class="second d-block">{{
                notes().form ? 'Corrected by you. Empty it to have it found again.' : 'Found in the music. Correct it where it is wrong.'
              }}</small>
            }
          </div>
          <fieldset>
            <legend>It is for</legend>
            @for (use of uses; track use) {
              <label class="form-check form-check-inline">
                <input type="checkbox" class="form-check-input" [checked]="notes().uses.includes(use)" (change)="toggleUse(use)" /> {{ useLabels[use] }}
              </label>
            }
          </fieldset>
          <div>
            <label for="about-before">Usually played before it</label>
            <input
              id="about-before"
              class="form-control"
              autocomplete="off"
              maxlength="120"
              list="about-tunes"
              [value]="notes().before"
              (change)="save({ before: typed($event) })"
            />
          </div>
          <div>
            <label for="about-after">Usually played after it</label>
            <input
              id="about-after"
              class="form-control"
              autocomplete="off"
              maxlength="120"
              list="about-tunes"
              [value]="notes().after"
              (change)="save({ after: typed($event) })"
            />
            <datalist id="about-tunes">
              @for (title of titles(); track title) {
                <option [value]="title"></option>
              }
            </datalist>
          </div>
          <fieldset>
            <legend>As a round</legend>
            <label for="about-voices">Voices</label>
            <select id="about-voices" class="form-select" (change)="setVoices(typed($event))">
              <option value="" [selected]="notes().round === null">it is no round</option>
              @for (voices of [2, 3, 4, 5, 6, 8]; track voices) {
                <option [value]="voices" [selected]="notes().round?.voices === voices">{{ voices }} voices</option>
              }
            </select>
            @if (notes().round; as round) {
              <label for="about-enters">The next voice enters</label>
              <select id="about-enters" class="form-select" (change)="setAfter(typed($event))">
                <option value="" [selected]="round.after === null">after an equal share of the tune</option>
                @for (section of form()?.sections ?? []; track section.number) {
                  <option [value]="section.number" [selected]="round.after === section.number">after phrase {{ section.number }}</option>
                }
              </select>
            }
            <p class="mb-0" [class.fault-text]="round()?.kind === 'none'" role="status">{{ roundText() }}</p>
          </fieldset>
        </main>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class TuneAboutPage {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly shelf = inject(InstrumentShelf);
  protected readonly state = inject(StudioState);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  readonly id = input.required<string>();
  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly formFault = signal('');
  protected readonly titles = signal<readonly string[]>([]);
  protected readonly uses = tuneUses;
  protected readonly useLabels = useLabels;

  protected readonly notes = computed((): TuneNotes => this.opened()?.detail.about ?? emptyNotes);
  protected readonly form = computed((): Form | undefined => {
    const opened = this.opened();
    return opened === undefined ? undefined : formOfTune(opened);
  });
  /** What is hard about it for who plays it. */
  protected readonly hard = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : hardPlaces(opened.instrument, opened.tune, opened.changes);
  });
  protected readonly newNotes = computed(() => {
    const opened = this.opened();
    return opened === undefined
      ? []
      : newNotesOf(opened.instrument, opened.tune, opened.held?.knownNotes ?? []).map((note) => noteOf(opened.instrument, note).schoolName);
  });
  protected readonly shownForm = computed(() => {
    const form = this.form();
    return this.notes().form || (form === undefined ? '' : formText(form));
  });
  protected readonly rest = computed(() => {
    const meter = this.opened()?.tune.meter;
    return [...(this.form()?.sentences.slice(1) ?? []), ...(meter === undefined ? [] : [meterText(meter)])].join(' ');
  });
  protected readonly round = computed(() => {
    const [form, round] = [this.form(), this.notes().round];
    return form === undefined || round === null ? undefined : roundOf(form, round.voices, round.after ?? undefined);
  });
  protected readonly roundText = computed(() => {
    const round = this.round();
    if (round === undefined) return isRound(this.opened()?.tune.rhythm ?? '') ? 'Its text calls it a round. Choose how many voices sing it.' : '';
    if (round.kind === 'none') return round.reason;
    return round.entries.map(({ voice, bar }) => (voice === 1 ? 'Voice 1 begins' : `voice ${voice} at bar ${bar} of the first`)).join(', ') + '.';
  });

  constructor() {
    effect(() => {
      const id = this.id();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() =>
        this.tunes.open(id).subscribe({ next: (opened) => this.opened.set(opened), error: (error: unknown) => this.fault.set(messageOf(error)) }),
      );
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
    this.tunes.list().subscribe({ next: (tunes) => this.titles.set(tunes.map(({ title }) => title)), error: (error: unknown) => this.notices.fault(error) });
  }

  protected openBar(bar: number): void {
    void this.router.navigate(['/tunes', this.id(), 'bars', `${Math.max(1, bar)}-${Math.max(1, bar)}`]);
  }

  protected typed(event: Event): string {
    return (event.target as HTMLInputElement | HTMLSelectElement).value;
  }

  protected setForm(text: string): void {
    const opened = this.opened();
    if (opened === undefined) return;
    this.formFault.set('');
    try {
      const lengths = readForm(text, measuresOf(opened.tune).length);
      const isFound = lengths !== undefined && formText(formOf(opened.instrument, opened.tune)) === text.trim();
      this.save({ form: lengths === undefined || isFound ? '' : text.trim() });
    } catch (error) {
      if (!(error instanceof ZelpitFault)) throw error;
      this.formFault.set(`${error.message} Nothing was changed.`);
    }
  }

  protected toggleUse(use: TuneUse): void {
    const { uses } = this.notes();
    this.save({ uses: uses.includes(use) ? uses.filter((each) => each !== use) : [...uses, use] });
  }

  protected setVoices(text: string): void {
    this.save({ round: text === '' ? null : { voices: Number(text), after: this.notes().round?.after ?? null } });
  }

  protected setAfter(text: string): void {
    const { round } = this.notes();
    if (round !== null) this.save({ round: { ...round, after: text === '' ? null : Number(text) } });
  }

  protected save(change: Partial<TuneNotes>): void {
    const opened = this.opened();
    if (opened === undefined) return;
    this.arrangements.saveNotes(opened.detail, { ...this.notes(), ...change }).subscribe({
      next: (detail) => {
        this.opened.set({ ...opened, detail });
        this.notices.done('Saved with the tune.');
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }
}

const emptyNotes: TuneNotes = { form: '', uses: [], before: '', after: '', round: null, scripts: {} };
