import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { MovementDefinition } from '@zelpit/core/movement';
import { Attempt } from '../../kernel/api/attempt';
import { StudioState } from '../../studio/state/studio-state.service';
import { MovementInHand } from './movement-in-hand.service';

/** How a movement stands to others: its names, what comes before it and what of that the student has, what is simpler. */
@Component({
  selector: 'zp-movement-neighbours',
  imports: [RouterLink],
  template: `
    @if (otherNames()) {
      <p>Also called {{ otherNames() }}.</p>
    }
    @if (state.student(); as student) {
      <h2 class="heading">What {{ student.alias }} can play</h2>
      <ul class="plain-list">
        @for (each of steps(); track each.id) {
          <li class="d-flex flex-wrap gap-3 align-items-center">
            <button type="button" class="toggle" [disabled]="saving.isBusy()" [attr.aria-pressed]="each.has" (click)="toggle(each.id)">
              {{ each.text }} <b>{{ each.has ? 'can play it' : 'not yet' }}</b>
            </button>
            @if (!each.isSelf) {
              <button type="button" class="word" (click)="hand.chosenId.set(each.id)">Open</button>
            }
          </li>
        }
      </ul>
      <p role="status">{{ readyText() }}</p>
      @if (saving.fault()) {
        <p class="fault-text" role="alert">{{ saving.fault() }}</p>
      }
    } @else if (!state.isOfStudent()) {
      <p><a class="word" routerLink="/students">Add your first student</a></p>
    }
  `,
})
export class MovementNeighboursComponent {
  protected readonly state = inject(StudioState);
  protected readonly hand = inject(MovementInHand);
  protected readonly saving = new Attempt();

  protected readonly otherNames = computed(() => this.hand.chosen().names.slice(1).join(', '));
  private readonly has = computed(() => new Set(this.state.student()?.movements ?? []));
  /** What comes before the movement, and itself. */
  protected readonly steps = computed(() => {
    const chosen = this.hand.chosen();
    const before = chosen.after.flatMap((id): readonly MovementDefinition[] => this.hand.all().filter((each) => each.id === id));
    return [...before, chosen].map((each) => ({ id: each.id, text: each.names[0], has: this.has().has(each.id), isSelf: each.id === chosen.id }));
  });
  protected readonly readyText = computed(() => {
    const { alias } = this.state.student();
    const missing = this.steps().filter(({ has, isSelf }) => !has && !isSelf);
    if (this.has().has(this.hand.chosen().id)) return `${alias} can play the ${this.hand.chosen().names[0]}.`;
    if (missing.length === 0) return `${alias} is ready for it.`;
    return `Learn first: ${missing.map(({ text }) => text).join(', ')}.`;
  });

  protected toggle(id: string): void {
    const student = this.state.student();
    const movements = this.has().has(id) ? student.movements.filter((each) => each !== id) : [...student.movements, id];
    this.saving.run(this.state.save(student, { alias: student.alias, movements }), () => undefined);
  }
}
