import { Component, computed, input, linkedSignal, output } from '@angular/core';
import { count } from '@zelpit/core/words';
import { firstChoices, type Choices, type Comparison, type Side } from './pieces';

/** Two versions of one document side by side, piece by piece, to choose from. */
@Component({
  selector: 'zp-conflict',
  template: `
    <section class="band" aria-label="Two versions">
      <div class="band-said" role="alert">
        <p class="band-todo">{{ name() }} was also changed somewhere else.</p>
        <p class="band-else">{{ text() }}</p>
      </div>
      <div class="band-actions">
        <button type="button" class="btn btn-solid" (click)="resolved.emit(comparison().join(choices()))">Save what I chose</button>
        <button type="button" class="btn btn-line" (click)="all('mine')">Use all mine</button>
        <button type="button" class="btn btn-line" (click)="all('theirs')">Use all theirs</button>
      </div>
    </section>
    <main class="layer page-fill versions">
      <h2 class="versions-head">Mine, here</h2>
      <h2 class="versions-head">Theirs, saved {{ theirsText() }}</h2>
      @for (piece of differing(); track piece.key) {
        <div class="version-piece" role="radiogroup" [attr.aria-label]="piece.name">
          <p class="version-name">
            {{ piece.name }}
            @if (piece.changed === 'both') {
              <span class="wrongly">changed in both</span>
            } @else {
              <span class="second">changed {{ piece.changed === 'mine' ? 'here' : 'there' }} only</span>
            }
          </p>
          @for (side of sides; track side) {
            <button
              type="button"
              class="version"
              role="radio"
              [attr.aria-checked]="choices().get(piece.key) === side"
              [attr.aria-label]="piece.name + (side === 'mine' ? ', mine: ' : ', theirs: ') + (piece[side] || 'nothing')"
              (click)="choose(piece.key, side)"
            >
              <span class="version-side">{{ side === 'mine' ? 'Mine' : 'Theirs' }}</span>
              <span [class.version-text]="isText()">{{ piece[side] || 'nothing' }}</span>
            </button>
          }
        </div>
      }
      @if (alike() > 0) {
        <p class="second version-alike">{{ count(alike(), 'part is', 'parts are') }} the same in both.</p>
      }
    </main>
  `,
})
export class ConflictComponent<D> {
  protected readonly count = count;
  readonly name = input.required<string>();
  readonly comparison = input.required<Comparison<D>>();
  /** When the other version was saved, in words. */
  readonly theirsText = input('');
  /** True where the pieces are lines of a text. */
  readonly isText = input(false);
  readonly resolved = output<D>();

  protected readonly sides: readonly Side[] = ['mine', 'theirs'];
  protected readonly choices = linkedSignal((): Choices => firstChoices(this.comparison().pieces));
  protected readonly differing = computed(() => this.comparison().pieces.filter(({ changed }) => changed !== 'same'));
  protected readonly alike = computed(() => this.comparison().pieces.length - this.differing().length);
  protected readonly text = computed(() => {
    const clashes = this.differing().filter(({ changed }) => changed === 'both').length;
    if (clashes === 0) return 'The two versions changed different parts, so both can be kept as chosen below.';
    return clashes === 1 ? 'One part was changed in both. Choose which to keep.' : `${clashes} parts were changed in both. Choose which to keep for each.`;
  });

  protected choose(key: string, side: Side): void {
    this.choices.update((choices) => new Map(choices).set(key, side));
  }

  protected all(side: Side): void {
    this.resolved.emit(this.comparison().join(new Map(this.comparison().pieces.map(({ key }) => [key, side]))));
  }
}
