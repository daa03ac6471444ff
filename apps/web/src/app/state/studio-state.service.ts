import { computed, inject, Injectable, signal } from '@angular/core';
import { instrumentById } from '@zelpit/core';
import { studentLinkSchema, studentSchema, type Student, type StudentInput, type StudentLink } from '@zelpit/contract';
import { tap, type Observable } from 'rxjs';
import { ApiService } from '../api/api.service';
import { OutgoingService } from '../saving/outgoing.service';

const storageKey = 'zelpit.student';

const byAlias = (one: Student, other: Student): number => one.alias.localeCompare(other.alias);

/** The student and the instrument in hand: chosen once, kept everywhere. */
@Injectable({ providedIn: 'root' })
export class StudioState {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);
  private readonly chosenId = signal(localStorage.getItem(storageKey) ?? '');

  readonly students = signal<readonly Student[]>([]);
  /** False until the students were fetched once. */
  readonly hasStudents = signal(false);
  readonly instrument = signal(instrumentById('practice-chanter')).asReadonly();
  readonly student = computed(() => this.students().find((student) => student.id === this.chosenId()) ?? this.students()[0]);

  loadStudents(): Observable<Student[]> {
    return this.api.all('/api/students', studentSchema).pipe(
      tap((students) => {
        this.students.set(students);
        this.hasStudents.set(true);
      }),
    );
  }

  choose(student: Student): void {
    this.chosenId.set(student.id);
    localStorage.setItem(storageKey, student.id);
  }

  add(alias: string): Observable<Student> {
    return this.outgoing.make({ path: '/api/students', body: { alias }, schema: studentSchema, said: alias.trim() || 'the student' }).pipe(
      tap((student) => {
        this.students.update((students) => [...students, student].sort(byAlias));
        this.choose(student);
      }),
    );
  }

  /** Errors: `ApiFault` 409 where the student was changed elsewhere since. */
  save({ id, version }: Student, input: StudentInput): Observable<Student> {
    return this.api
      .put(`/api/students/${id}`, { ...input, version }, studentSchema)
      .pipe(tap((saved) => this.students.update((students) => students.map((each) => (each.id === saved.id ? saved : each)).sort(byAlias))));
  }

  /** A link that opens the student's own sheets on their tablet. */
  linkFor(student: Student): Observable<StudentLink> {
    return this.api.post(`/api/students/${student.id}/link`, undefined, studentLinkSchema);
  }

  putAway(student: Student): Observable<void> {
    return this.api
      .send('DELETE', `/api/students/${student.id}`)
      .pipe(tap(() => this.students.update((students) => students.filter((each) => each.id !== student.id))));
  }

  bringBack(student: Student): Observable<void> {
    return this.api
      .send('POST', `/api/students/${student.id}/restore`)
      .pipe(tap(() => this.students.update((students) => [...students, student].sort(byAlias))));
  }
}
