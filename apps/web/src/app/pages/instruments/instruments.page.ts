import { Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import type { HeldInstrument, HeldInstrumentInput } from '@zelpit/contract';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { heldChoice, StudioState } from '../../studio/state/studio-state.service';
import { InstrumentFormComponent } from './instrument-form.component';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';

/** Who plays what: the instruments of the students and of the teacher, each with its settings. */
@Component({
  selector: 'zp-instruments',
  imports: [SentenceComponent, ForWhomComponent, FormsModule, InstrumentFormComponent],
  template: `
    <div class="page">
      <zp-sentence place="Students"><span>Who plays what</span><zp-for-whom [hasInstrument]="false" /></zp-sentence>
      <section class="band" aria-label="Add an instrument">
        <div class="band-said">
          <p class="band-todo">Give {{ studentText('a student') }} an instrument, or add one of your own.</p>
          <p class="band-else">Its model, tuning, school of fingering, hands and known notes are saved with it.</p>
        </div>
        <form class="band-actions" (ngSubmit)="add(true)">
          <label class="visually-hidden" for="new-model">Model</label>
          <select id="new-model" name="model" class="form-select band-field" [(ngModel)]="model">
            @for (each of shelf.modelChoices(); track each.value) {
              <option [value]="each.value">{{ each.label }}</option>
            }
          </select>
          <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy() || state.students().length === 0">
            Add for {{ studentText('a student') }}
          </button>
          <button type="button" class="btn btn-line" [disabled]="attempt.isBusy()" (click)="add(false)">Add for me</button>
        </form>
      </section>
      <main class="layer page-fill">
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        @for (group of groups(); track group.owner) {
          <h2 class="group-title">{{ group.owner }}</h2>
          <ul class="rows" style="max-width: 1080px">
            @for (held of group.held; track held.id) {
              <li class="person">
                <div class="d-flex flex-wrap align-items-center column-gap-4">
                  <button type="button" class="row-link flex-grow-1 border-0 text-start" [attr.aria-label]="'Chart of ' + held.name" (click)="chart(held)">
                    <span>{{ held.name }}</span>
                    <small>{{ about(held) }}</small>
                  </button>
                  <button
                    type="button"
                    class="word"
                    [attr.aria-expanded]="open() === held.id"
                    [attr.aria-label]="'Settings of ' + held.name"
                    (click)="open.set(open() === held.id ? '' : held.id)"
                  >
                    Settings
                  </button>
                  <button type="button" class="word quiet-action" [attr.aria-label]="'Put away ' + held.name" (click)="putAway(held)">Put away</button>
                </div>
                @if (open() === held.id) {
                  <zp-instrument-form [held]="held" (closed)="open.set('')" />
                }
              </li>
            }
          </ul>
        } @empty {
          <div class="empty">
            <p>{{ fault() || (shelf.isLoaded() ? 'No instruments yet. Add the first one above.' : 'Loading the instruments …') }}</p>
          </div>
        }
      </main>
    </div>
  `,
})
export class InstrumentsPage {
  protected readonly shelf = inject(InstrumentShelf);
  protected readonly state = inject(StudioState);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  protected readonly attempt = new Attempt();
  protected readonly open = signal('');
  protected readonly fault = signal('');
  protected model = 'practice-chanter';

  protected readonly groups = computed(() => {
    const byOwner = new Map<string, HeldInstrument[]>();
    for (const held of this.shelf.held()) byOwner.set(held.owner.name, [...(byOwner.get(held.owner.name) ?? []), held]);
    return [...byOwner].map(([owner, held]) => ({ owner, held }));
  });

  protected studentText(otherwise: string): string {
    return this.state.hasStudents() && this.state.students().length > 0 ? this.state.student().alias : otherwise;
  }

  constructor() {
    this.shelf.load().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  protected about(held: HeldInstrument): string {
    const model = this.shelf.model(held.model);
    const known = held.knownNotes.length === 0 ? [] : [`${held.knownNotes.length} of ${model?.notes.length ?? 0} notes known`];
    const hands = held.hands === 'right-on-top' ? ['right hand on top'] : [];
    return [model === undefined ? 'its model was put away' : nameOf(model), ...hands, ...known].join(' · ');
  }

  protected chart(held: HeldInstrument): void {
    const student = this.state.students().find(({ id }) => id === held.owner.id);
    if (student !== undefined) this.state.choose(student.id);
    this.state.chooseInstrument(heldChoice(held));
    void this.router.navigate(['/charts']);
  }

  protected add(isStudents: boolean): void {
    const model = this.shelf.model(this.model);
    const student = isStudents ? this.state.student() : undefined;
    if (model === undefined || (isStudents && student === undefined)) return;
    const input: HeldInstrumentInput = {
      name: (student === undefined ? model.name : `${student.alias}’s ${model.name}`).slice(0, 60),
      studentId: student?.id ?? null,
      model: model.id,
      hands: 'left-on-top',
      written: 'as-charted',
      tuning: { kind: 'chart' },
      schools: {},
      referenceHertz: null,
      knownNotes: [],
      note: '',
    };
    this.attempt.run(this.shelf.add(input), (held) => this.open.set(held.id));
  }

  protected putAway(held: HeldInstrument): void {
    const failed = (error: unknown): void => this.notices.fault(error);
    this.shelf.putAway(held).subscribe({
      next: () =>
        this.notices.done(`${held.name} was put away. It can be brought back for 30 days.`, () => this.shelf.bringBack(held).subscribe({ error: failed })),
      error: failed,
    });
  }
}
