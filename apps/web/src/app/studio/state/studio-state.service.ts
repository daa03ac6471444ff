import { computed, inject, Injectable, signal } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import { studentRoutes, type HeldInstrument, type Student, type StudentInput } from '@zelpit/contract';
import { finalize, forkJoin, map, of, shareReplay, tap, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { InstrumentShelf, nameOf } from '../shelf/instrument-shelf.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';
import { SessionService } from '../../kernel/session/session.service';
import type { Choice } from '../../kernel/chooser/chooser.component';

const storageKey = 'zelpit.student';
const instrumentKey = 'zelpit.instrument.';
const heldSign = 'held:';

/** How somebody's instrument is chosen. */
export const heldChoice = ({ id }: HeldInstrument): string => heldSign + id;

const byAlias = (one: Student, other: Student): number => one.alias.localeCompare(other.alias);

/** An instrument in hand: a model, or what somebody plays. */
export interface InHand {
  /** As it is chosen: the id of a model, or `held:` and the id of what somebody plays. */
  readonly choice: string;
  readonly held?: HeldInstrument;
  /** With the owner's tuning and schools and the studio's fingerings. */
  readonly instrument: Instrument;
}

/** The student and the instrument in hand: chosen once, kept everywhere. */
@Injectable({ providedIn: 'root' })
export class StudioState {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly session = inject(SessionService);
  private underway: Observable<Student[]> | undefined;
  /** Chosen in this visit. */
  private readonly chosenNow = signal<string | undefined>(undefined);
  private readonly chosenId = computed(() => this.chosenNow() ?? this.session.inHand()?.student ?? localStorage.getItem(storageKey) ?? '');

  readonly students = signal<readonly Student[]>([]);
  /** False until the students were fetched once. */
  readonly hasStudents = signal(false);
  readonly student = computed(() => this.students().find((student) => student.id === this.chosenId()) ?? this.students()[0]);
  /** Which instrument was chosen last for each student. */
  private readonly chosenInstruments = signal<Readonly<Record<string, string>>>({});

  /** The instruments of the student, then the teacher's, then every model. */
  readonly instrumentChoices = computed((): readonly Choice<string>[] => [
    ...this.reachable().map((held) => ({ value: heldChoice(held), label: held.name })),
    ...this.shelf.modelChoices(),
  ]);

  readonly inHand = computed((): InHand => {
    const key = this.student()?.id ?? '';
    const choice = this.chosenInstruments()[key] ?? localStorage.getItem(instrumentKey + key) ?? '';
    return this.handFor(choice) ?? this.firstOfStudent() ?? this.ofModel('practice-chanter');
  });
  /** True on a student's own tablet. */
  readonly isOfStudent = computed(() => this.session.isFamily());
  readonly instrument = computed(() => this.inHand().instrument);
  readonly instrumentText = computed(() => this.inHand().held?.name ?? nameOf(this.instrument()));

  /** The model that the instrument in hand is of. */
  readonly model = computed(() => this.shelf.known(this.instrument().id));

  /** Students and instruments, fetched once. */
  ready(): Observable<void> {
    const students = this.hasStudents() || this.isOfStudent() ? of(undefined) : this.studentsOnce();
    return forkJoin([this.shelf.ready(), students]).pipe(map(() => undefined));
  }

  private studentsOnce(): Observable<Student[]> {
    this.underway ??= this.loadStudents().pipe(
      finalize(() => (this.underway = undefined)),
      shareReplay(1),
    );
    return this.underway;
  }

  chooseInstrument(choice: string): void {
    const key = this.student()?.id ?? '';
    this.chosenInstruments.update((all) => ({ ...all, [key]: choice }));
    localStorage.setItem(instrumentKey + key, choice);
  }

  handFor(choice: string): InHand | undefined {
    const held = choice.startsWith(heldSign) ? this.reachable().find(({ id }) => id === choice.slice(heldSign.length)) : undefined;
    if (held !== undefined) return this.inHandOf(held);
    return this.shelf.model(choice) === undefined ? undefined : this.ofModel(choice);
  }

  /**
   * On what a tune that is written for a model is shown: the student's own instrument of that family, the same model or else the same size before another;
   * the model as the studio fingers it where the student has none.
   */
  ofFamily(modelId: string): InHand {
    const written = this.shelf.known(modelId);
    const distance = ({ model }: HeldInstrument): number => {
      const own = this.shelf.model(model);
      if (own?.family !== written.family) return Number.POSITIVE_INFINITY;
      if (own.id === written.id) return 0;
      return own.name === written.name ? 1 : 2;
    };
    const [nearest] = [...this.ofStudent()].sort((one, other) => distance(one) - distance(other));
    const hand = nearest === undefined || distance(nearest) === Number.POSITIVE_INFINITY ? undefined : this.inHandOf(nearest);
    return hand ?? this.ofModel(modelId);
  }

  /** What a student's page can show: the student's own; for a teacher the teacher's too. */
  private reachable(): readonly HeldInstrument[] {
    return [...this.ofStudent(), ...this.shelf.held().filter(({ owner }) => owner.kind !== 'student')];
  }

  private ofStudent(): readonly HeldInstrument[] {
    const student = this.student();
    return this.shelf.held().filter(({ owner }) => owner.kind === 'student' && (student === undefined || owner.id === student.id));
  }

  private firstOfStudent(): InHand | undefined {
    const [first] = this.ofStudent();
    return first === undefined ? undefined : this.inHandOf(first);
  }

  private ofModel(id: string): InHand {
    return { choice: id, instrument: this.shelf.kept(this.shelf.known(id)) };
  }

  private inHandOf(held: HeldInstrument): InHand | undefined {
    const instrument = this.shelf.played(held);
    return instrument === undefined ? undefined : { choice: heldChoice(held), held, instrument };
  }

  loadStudents(): Observable<Student[]> {
    return this.api.all(studentRoutes.students, {}).pipe(
      tap((students) => {
        this.students.set(students);
        this.hasStudents.set(true);
      }),
    );
  }

  choose(studentId: string): void {
    this.chosenNow.set(studentId);
    localStorage.setItem(storageKey, studentId);
    this.session.keepInHand({ student: studentId });
  }

  add(alias: string): Observable<Student> {
    return this.outgoing.make(studentRoutes.addStudent, { body: { alias } }, alias.trim() || 'the student').pipe(
      tap((student) => {
        this.students.update((students) => [...students, student].sort(byAlias));
        this.choose(student.id);
      }),
    );
  }

  /** Errors: `ApiFault` 409 where the student was changed elsewhere since. */
  save({ id, version }: Student, input: StudentInput): Observable<Student> {
    return this.api
      .call(studentRoutes.saveStudent, { id, body: { ...input, version } })
      .pipe(tap((saved) => this.students.update((students) => students.map((each) => (each.id === saved.id ? saved : each)).sort(byAlias))));
  }

  putAway(student: Student): Observable<undefined> {
    return this.api
      .call(studentRoutes.putStudentAway, { id: student.id })
      .pipe(tap(() => this.students.update((students) => students.filter((each) => each.id !== student.id))));
  }

  bringBack(student: Student): Observable<undefined> {
    return this.api
      .call(studentRoutes.bringStudentBack, { id: student.id })
      .pipe(tap(() => this.students.update((students) => [...students, student].sort(byAlias))));
  }
}
