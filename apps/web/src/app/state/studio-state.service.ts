import { computed, inject, Injectable, signal } from '@angular/core';
import { instrumentById } from '@zelpit/core';
import { studentSchema, type Student } from '@zelpit/contract';
import { tap, type Observable } from 'rxjs';
import * as z from 'zod';
import { ApiService } from '../api/api.service';

const storageKey = 'zelpit.student';

/** The student and the instrument in hand: chosen once, kept everywhere. */
@Injectable({ providedIn: 'root' })
export class StudioState {
  private readonly api = inject(ApiService);
  private readonly chosenId = signal(localStorage.getItem(storageKey) ?? '');

  readonly students = signal<readonly Student[]>([]);
  /** False until the students were fetched once. */
  readonly hasStudents = signal(false);
  readonly instrument = signal(instrumentById('practice-chanter')).asReadonly();
  readonly student = computed(() => this.students().find((student) => student.id === this.chosenId()) ?? this.students()[0]);

  loadStudents(): Observable<Student[]> {
    return this.api.get('/api/students', z.array(studentSchema)).pipe(
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
    return this.api.post('/api/students', { alias }, studentSchema).pipe(
      tap((student) => {
        this.students.update((students) => [...students, student].sort((one, other) => one.alias.localeCompare(other.alias)));
        this.choose(student);
      }),
    );
  }

  rename(student: Student, alias: string): Observable<Student> {
    return this.api
      .put(`/api/students/${student.id}`, { alias }, studentSchema)
      .pipe(tap((renamed) => this.students.update((students) => students.map((each) => (each.id === renamed.id ? renamed : each)))));
  }

  putAway(student: Student): Observable<void> {
    return this.api
      .send('DELETE', `/api/students/${student.id}`)
      .pipe(tap(() => this.students.update((students) => students.filter((each) => each.id !== student.id))));
  }

  bringBack(student: Student): Observable<void> {
    return this.api
      .send('POST', `/api/students/${student.id}/restore`)
      .pipe(tap(() => this.students.update((students) => [...students, student].sort((one, other) => one.alias.localeCompare(other.alias)))));
  }
}
