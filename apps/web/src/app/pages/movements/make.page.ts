import { Component, computed, effect, inject, input, signal, untracked, viewChild, type ElementRef } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { ZelpitFault } from '@zelpit/core/fault';
import { chartedPattern, noteOf, practiceChanter, type NoteId, type Pattern } from '@zelpit/core/fingering';
import {
  compileMovement,
  lettersOfPatterns,
  movementFile,
  movementFromWritten,
  partText,
  readMovementFile,
  readWrittenForm,
  writtenForm,
  type MovementDefinition,
  type MovementPart,
} from '@zelpit/core/movement';
import { milliseconds } from '@zelpit/core/pitch';
import { count } from '@zelpit/core/words';
import { concatMap, from, toArray } from 'rxjs';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { HolesComponent } from '../../music/lanes/holes.component';
import { saveFile, fileNameOf } from '../../kernel/files/save-file';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { DraftTableComponent } from './draft-table.component';

type Arrives = 'everywhere' | 'here' | 'as-before' | 'only-so';

const anywhere = 'the start';
const idOf = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
const toneMs = 600;

/** A movement of the studio's own: typed or played once, put on every start by the laws, looked over and kept; and movements in and out as files. */
@Component({
  selector: 'zp-make-movement',
  imports: [SentenceComponent, ChooserComponent, HolesComponent, DraftTableComponent, RouterLink],
  template: `
    <div class="page movements-page">
      <zp-sentence
        ><a class="chooser-word" routerLink="/movements">Movements</a
        ><span class="quiet">: {{ changing() === undefined ? 'make your own' : 'change the ' + changing()?.names?.[0] }}</span>
      </zp-sentence>
      <section class="band" aria-label="What to do">
        <div class="band-said">
          <p class="band-todo">{{ bandText().todo }}</p>
          <p class="band-else">{{ bandText().otherwise }}</p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="!canKeep()" (click)="keep()">
            {{ changing() === undefined ? 'Save it' : 'Save the change' }}
          </button>
        </div>
      </section>
      <main class="layer page-fill">
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        <div class="make-movement">
          <section aria-label="One example">
            <h2 class="heading">One example</h2>
            @if (changing() === undefined) {
              <label class="form-label" for="own-name">Name</label>
              <input id="own-name" class="form-control" maxlength="60" autocomplete="off" [value]="name()" (input)="name.set(typed($event))" />
            }
            <label class="form-label mt-2" for="own-written">As it is written: grace notes in braces, then the note</label>
            <input
              id="own-written"
              class="form-control"
              autocomplete="off"
              spellcheck="false"
              placeholder="{gcd}c"
              [value]="written()"
              (input)="setWritten(typed($event))"
            />
            <p class="mt-1">
              <span class="quiet">from </span><zp-chooser purpose="Note before" [(value)]="before" [choices]="beforeChoices" /><span class="quiet"
                >, ending </span
              ><zp-chooser purpose="Arrives" [(value)]="arrives" [choices]="arrivals()" />
            </p>
            @if (reading().fault) {
              <p class="fault-text" role="alert">{{ reading().fault }}</p>
            }
            @if (ruleText()) {
              <p role="status">{{ ruleText() }}</p>
            }
          </section>
          <section aria-label="Or play it">
            <h2 class="heading">Or set it with the fingers</h2>
            <p class="second">
              Into <zp-chooser purpose="Theme note" [value]="theme()" [choices]="noteChoices" (valueChange)="chooseTheme($event)" />: set the fingers for each
              element and add it.
            </p>
            <div class="d-flex flex-wrap gap-4">
              <zp-holes [instrument]="chanter" [pattern]="pattern()" (pressed)="press($event)" />
              <div class="make-steps">
                <p class="d-flex flex-wrap gap-2">
                  <button type="button" class="btn btn-line btn-low" (click)="addStep()">Add this element</button>
                  <button type="button" class="word" [disabled]="played().length === 0" (click)="takeStep()">Remove the last one</button>
                </p>
                <ol>
                  @for (name of playedNames(); track $index) {
                    <li>{{ name }}</li>
                  } @empty {
                    <li class="quiet">Nothing yet.</li>
                  }
                </ol>
                @if (playFault()) {
                  <p class="fault-text" role="alert">{{ playFault() }}</p>
                }
              </div>
            </div>
          </section>
          @if (draft(); as made) {
            <section aria-label="How Zelpit reads it">
              <h2 class="heading">How Zelpit reads it</h2>
              <ol>
                @for (part of parts(); track $index; let isFirst = $first; let isLast = $last) {
                  <li class="mb-1">
                    {{ part }}
                    <button
                      type="button"
                      class="word"
                      [attr.aria-label]="'Leave out element ' + ($index + 1)"
                      [disabled]="made.parts.length === 1"
                      (click)="leaveOut($index)"
                    >
                      leave out
                    </button>
                  </li>
                }
              </ol>
            </section>
          }
        </div>
        @if (draft(); as made) {
          <section aria-label="On every start">
            <h2 class="heading">From every note, by the rules</h2>
            <zp-draft-table [instrument]="chanter" [movement]="made" [settings]="book.settings()" />
          </section>
        }
        <section aria-label="Kept movements">
          <h2 class="heading">Our movements</h2>
          <ul class="rows">
            @for (each of ours(); track each.movement) {
              <li class="d-flex flex-wrap gap-3 align-items-center">
                <button type="button" class="word" (click)="show(each.movement)">{{ each.name }}</button>
                <small>by {{ each.by }}, {{ each.on }}</small>
                <button type="button" class="word" [attr.aria-label]="'Delete ' + each.name" (click)="remove(each.movement)">Delete</button>
              </li>
            } @empty {
              <li class="quiet">None yet.</li>
            }
          </ul>
          <p class="d-flex flex-wrap gap-3">
            <button type="button" class="btn btn-line btn-low" [disabled]="ours().length === 0" (click)="takeOut()">Save them as a file</button>
            <button type="button" class="btn btn-line btn-low" (click)="pick()">Add from a file</button>
            <input #picker type="file" class="d-none" accept=".json,application/json" aria-label="A file of movements" (change)="bringIn($event)" />
          </p>
          @if (fileAttempt.fault() || fileFault()) {
            <p class="fault-text" role="alert">{{ fileFault() || fileAttempt.fault() }} Nothing was changed.</p>
          }
        </section>
      </main>
    </div>
  `,
})
export class MakeMovementPage {
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  private readonly state = inject(StudioState);
  private readonly transport = inject(Transport);
  protected readonly book = inject(MovementBook);
  private readonly picker = viewChild<ElementRef<HTMLInputElement>>('picker');
  protected readonly attempt = new Attempt();
  protected readonly fileAttempt = new Attempt();
  protected readonly fileFault = signal('');

  /** A movement to be changed, from the address. */
  readonly from = input<string>();

  protected readonly chanter = practiceChanter;
  protected readonly noteChoices = practiceChanter.notes.map(({ id, schoolName }): Choice<NoteId> => ({ value: id, label: schoolName }));
  protected readonly beforeChoices: readonly Choice<NoteId | null>[] = [...this.noteChoices, { value: null, label: anywhere }];
  /** A movement that is changed arrives where it did, if nothing else is said. */
  protected readonly arrivals = computed((): readonly Choice<Arrives>[] => [
    ...(this.changing() === undefined
      ? []
      : [
          { value: 'as-before' as const, label: 'where it ended before' },
          { value: 'only-so' as const, label: 'as before, except between these two notes' },
        ]),
    { value: 'everywhere', label: 'on every note where it is possible' },
    { value: 'here', label: 'on this note only' },
  ]);

  protected readonly name = signal('');
  protected readonly written = signal('');
  protected readonly before = signal<NoteId | null>('e');
  protected readonly beforeText = computed(() => labelOf(this.beforeChoices, this.before()));
  protected readonly arrives = signal<Arrives>('everywhere');
  protected readonly arrivesText = computed(() => labelOf(this.arrivals(), this.arrives()));
  /** Elements that the teacher left out of what was understood, or a definition as it came. */
  private readonly own = signal<MovementDefinition | undefined>(undefined);

  protected readonly theme = signal<NoteId>('c');
  protected readonly pattern = signal<Pattern>(chartedPattern(practiceChanter, 'c'));
  protected readonly played = signal<readonly Pattern[]>([]);
  protected readonly playedNames = computed(() => lettersOfPatterns(practiceChanter, this.played(), this.theme()).map((id) => this.nameOf(id)));
  protected readonly playFault = signal('');

  protected readonly changing = computed(() => this.book.movementsOf(practiceChanter).find(({ id }) => id === this.from()));
  protected readonly reading = computed((): { readonly made?: MovementDefinition; readonly fault?: string } => {
    if (this.written().trim() === '') return {};
    try {
      const changed = this.changing();
      const naming = {
        id: changed?.id ?? (idOf(this.name()) || 'own'),
        name: changed?.names[0] ?? (this.name().trim() || 'own movement'),
        arrives: this.arrives() === 'here' ? ('here' as const) : ('everywhere' as const),
      };
      return { made: movementFromWritten(practiceChanter, readWrittenForm(practiceChanter, this.written()), this.before(), naming, this.book.settings()) };
    } catch (error) {
      if (error instanceof ZelpitFault) return { fault: error.message };
      throw error;
    }
  });
  protected readonly draft = computed((): MovementDefinition | undefined => {
    const changed = this.changing();
    const made = this.own() ?? this.reading().made;
    if (made === undefined) return this.written().trim() === '' ? changed : undefined;
    const { id, names } = this.reading().made ?? made;
    if (changed === undefined) return { ...made, id, names };
    if (this.arrives() === 'only-so') return this.withCell(changed);
    const arrivals = { 'as-before': changed.arrivals, here: made.arrivals, everywhere: undefined, 'only-so': undefined }[this.arrives()];
    const { arrivals: _before, ...rest } = changed;
    return { ...rest, parts: made.parts, cells: made.cells ?? [], ...(arrivals !== undefined && { arrivals }) };
  });
  protected readonly parts = computed(() => (this.draft()?.parts ?? []).map((part: MovementPart) => capital(partText(practiceChanter, part))));

  /** How the example comes out by the laws. */
  protected readonly ruleText = computed(() => {
    const made = this.draft();
    const cell = made?.cells?.at(-1);
    if (made === undefined || cell === undefined) return '';
    const byLaw = compileMovement(practiceChanter, { ...made, cells: [] }, cell.before, cell.after, this.book.settings());
    const law = byLaw.kind === 'compiled' ? `the rule gives ${byLaw.written}` : byLaw.reason;
    return `Here ${law}. Your own version is used between these two notes; all others follow the rule.`;
  });
  private readonly isNameTaken = computed(() => {
    const id = idOf(this.name());
    return this.changing() === undefined && this.book.movementsOf(practiceChanter).some((each) => each.id === id);
  });
  protected readonly canKeep = computed(() => {
    const made = this.draft();
    const isNamed = this.changing() !== undefined || idOf(this.name()) !== '';
    return made !== undefined && isNamed && !this.isNameTaken() && !this.attempt.isBusy();
  });
  protected readonly bandText = computed(() => {
    if (this.changing() !== undefined)
      return { todo: 'Write it the way you play it, or leave elements out.', otherwise: 'This changes the studio’s rule. Lines made before stay as they are.' };
    if (this.isNameTaken()) return { todo: 'There is already a movement with that name.', otherwise: 'Open that one to change it, or choose another name.' };
    if (this.draft() === undefined)
      return {
        todo: 'Write one example, or play it.',
        otherwise: 'Zelpit works out how it goes from every other note: what opens it, and what each note allows.',
      };
    if (idOf(this.name()) === '') return { todo: 'Give it a name.', otherwise: 'Then you can save it.' };
    return {
      todo: `Look over the ${this.name().trim()} from every note, then save it.`,
      otherwise: 'You can then find it, hear it, practise it and have it judged like any other.',
    };
  });
  protected readonly ours = computed(() =>
    this.book.kept().flatMap(({ movement, definition, by, on }) => (definition === null ? [] : [{ movement, name: definition.names[0], by, on }])),
  );

  constructor() {
    // A movement that is to be changed begins with its usual form.
    effect(() => {
      const changed = this.changing();
      if (changed === undefined) return;
      untracked(() => {
        this.own.set(undefined);
        this.written.set('');
        this.arrives.set('as-before');
      });
    });
  }

  /** A movement as it was but for one start and arrival, which are written as the teacher wants them. */
  private withCell(changed: MovementDefinition): MovementDefinition {
    const { graces, after } = readWrittenForm(practiceChanter, this.written());
    const before = this.before();
    const others = (changed.cells ?? []).filter((cell) => cell.before !== before || cell.after !== after);
    return { ...changed, cells: [...others, { before, after, graces }] };
  }

  protected typed(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  protected setWritten(text: string): void {
    this.own.set(undefined);
    this.written.set(text);
  }

  protected nameOf(id: NoteId): string {
    return noteOf(practiceChanter, id).schoolName;
  }

  protected chooseTheme(note: NoteId): void {
    this.theme.set(note);
    this.played.set([]);
    this.pattern.set(chartedPattern(practiceChanter, note));
  }

  protected press(hole: number): void {
    this.pattern.update((pattern) => pattern.map((each, index) => (index === hole ? 1 - each : each)));
  }

  protected addStep(): void {
    this.takePlayed([...this.played(), this.pattern()]);
  }

  protected takeStep(): void {
    this.takePlayed(this.played().slice(0, -1));
  }

  protected leaveOut(index: number): void {
    const made = this.draft();
    if (made === undefined) return;
    const parts = made.parts.filter((_, at) => at !== index);
    this.own.set({ ...made, parts, cells: [] });
  }

  protected keep(): void {
    const made = this.draft();
    if (made === undefined || !this.canKeep()) return;
    this.attempt.run(this.book.keep(made), ({ movement }) => {
      this.notices.done(`The ${made.names[0]} is saved.`);
      this.show(movement);
    });
  }

  /** Opens a movement on a chanter, also where another instrument is in hand. */
  protected show(movement: string): void {
    if (this.state.instrument().family !== this.chanter.family) this.state.chooseInstrument(this.chanter.id);
    void this.router.navigate(['/movements'], { queryParams: { movement } });
  }

  protected remove(movement: string): void {
    const kept = this.book.keptFor(movement);
    if (kept === undefined) return;
    this.attempt.run(this.book.drop(kept), () =>
      this.notices.done(`“${kept.definition?.names[0] ?? movement}” is deleted.`, () =>
        this.book.bringBack(kept).subscribe({ error: (error: unknown) => this.notices.fault(error) }),
      ),
    );
  }

  protected takeOut(): void {
    const all = this.book.kept().flatMap(({ definition, by }) => (definition === null ? [] : [{ ...definition, author: by }]));
    saveFile(fileNameOf('Movements', 'json'), new Blob([movementFile(all)], { type: 'application/json' }));
  }

  protected pick(): void {
    this.picker()?.nativeElement.click();
  }

  protected async bringIn(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file === undefined) return;
    this.fileFault.set('');
    try {
      const { movements } = readMovementFile(practiceChanter, await file.text());
      const definitions = movements.map(({ author: _author, ...definition }) => definition);
      const all = from(definitions).pipe(
        concatMap((definition) => this.book.keep(definition)),
        toArray(),
      );
      this.fileAttempt.run(all, (kept) => this.notices.done(`${count(kept.length, 'movement')} added.`));
    } catch (error) {
      this.fileFault.set(error instanceof ZelpitFault ? error.message : messageOf(error));
    }
  }

  /** Played elements become the written form. */
  private takePlayed(patterns: readonly Pattern[]): void {
    this.playFault.set('');
    try {
      const letters = lettersOfPatterns(practiceChanter, patterns, this.theme());
      this.played.set(patterns);
      this.setWritten(letters.length === 0 ? '' : writtenForm(practiceChanter, letters, this.theme()));
      this.sound(patterns[patterns.length - 1]);
    } catch (error) {
      if (!(error instanceof ZelpitFault)) throw error;
      this.playFault.set(`${error.message} Change the fingers and add it again.`);
    }
  }

  private sound(pattern: Pattern | undefined): void {
    if (pattern === undefined) return;
    const [start, length] = [milliseconds(0), milliseconds(toneMs)];
    this.transport.sound(practiceChanter, { steps: [{ pattern, start, length, role: 'theme', note: 0 }], clicks: [], length });
  }
}
