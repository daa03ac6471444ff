import { computed, inject, Injectable, signal } from '@angular/core';
import { movementRoutes, type KeptMovement, type MovementChoices, type MovementChoicesShown } from '@zelpit/contract';
import type { Instrument } from '@zelpit/core/fingering';
import { movementsOf, pipeMovements, usualMovementSettings, type MovementDefinition } from '@zelpit/core/movement';
import { finalize, forkJoin, map, of, shareReplay, tap, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';

/** What the studio says of movements: which it confirmed, changed or made, and how it plays and speaks them. */
@Injectable({ providedIn: 'root' })
export class MovementBook {
  private readonly api = inject(ApiService);
  private underway: Observable<void> | undefined;

  readonly kept = signal<readonly KeptMovement[]>([]);
  readonly choices = signal<MovementChoicesShown>({ settings: usualMovementSettings, syllables: {}, ornaments: {}, version: 1 });
  /** False until everything was fetched once. */
  readonly isLoaded = signal(false);

  readonly settings = computed(() => this.choices().settings);
  readonly ornaments = computed(() => this.choices().ornaments);
  readonly syllables = computed(() => this.choices().syllables);
  /** Movements of the studio's own, and built-in ones that it plays otherwise. */
  readonly own = computed((): readonly MovementDefinition[] => this.kept().flatMap(({ definition }) => (definition === null ? [] : [definition])));

  /** Everything, fetched once. */
  ready(): Observable<void> {
    return this.isLoaded() ? of(undefined) : this.reload();
  }

  reload(): Observable<void> {
    this.underway ??= forkJoin([this.api.all(movementRoutes.movements, {}), this.api.call(movementRoutes.movementChoices, {})]).pipe(
      map(([kept, choices]) => {
        this.kept.set(kept);
        this.choices.set(choices);
        this.isLoaded.set(true);
      }),
      finalize(() => (this.underway = undefined)),
      shareReplay(1),
    );
    return this.underway;
  }

  movementsOf(instrument: Instrument): readonly MovementDefinition[] {
    return movementsOf(instrument, this.own());
  }

  keptFor(movement: string): KeptMovement | undefined {
    return this.kept().find((each) => each.movement === movement);
  }

  isBuiltIn(movement: string): boolean {
    return pipeMovements.some(({ id }) => id === movement);
  }

  /** Confirms a built-in movement as it is. */
  confirm(movement: string): Observable<KeptMovement> {
    return this.send(movement, null);
  }

  keep(definition: MovementDefinition): Observable<KeptMovement> {
    return this.send(definition.id, definition);
  }

  drop({ id }: KeptMovement): Observable<undefined> {
    return this.api.call(movementRoutes.dropMovement, { id }).pipe(tap(() => this.kept.update((all) => all.filter((each) => each.id !== id))));
  }

  /** Says again what was taken back. */
  bringBack({ movement, definition }: KeptMovement): Observable<KeptMovement> {
    return this.send(movement, definition);
  }

  /** Errors: `ApiFault` 409 where they were changed elsewhere since. */
  saveChoices(change: Partial<MovementChoices>): Observable<MovementChoicesShown> {
    const { version, ...before } = this.choices();
    return this.api.call(movementRoutes.saveMovementChoices, { body: { ...before, ...change, version } }).pipe(tap((choices) => this.choices.set(choices)));
  }

  private send(movement: string, definition: MovementDefinition | null): Observable<KeptMovement> {
    return this.api
      .call(movementRoutes.keepMovement, { body: { movement, definition } })
      .pipe(tap((kept) => this.kept.update((all) => [...all.filter((each) => each.movement !== movement), kept])));
  }
}
