import { Component, computed, type ElementRef, inject, signal, viewChild, type OnDestroy, afterNextRender } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { SheetSummary, TuneSummary } from '@zelpit/contract';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { LastTune } from '../../documents/tune/last-tune';
import { TunesService } from '../../documents/tune/tunes.service';
import { destinationsFor, groupsFor, studentPages, type Destination, type Page } from './destinations';

/** All pages in their groups; what is typed finds a tune, a student, a note or a change. */
@Component({
  selector: 'zp-places',
  imports: [RouterLink, SentenceComponent, ForWhomComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <span class="quiet">Where to, </span><span>{{ session.person()?.name }}</span
        ><span class="quiet">?</span>
      </zp-sentence>
      @if (isStaff()) {
        <form class="band places-find" role="search" (submit)="goFirst($event)">
          <div class="band-said">
            <p class="band-fact"><label for="find">Type a tune, a student, a note or a change</label><zp-for-whom />.</p>
            <input
              #find
              id="find"
              class="find-field"
              autocomplete="off"
              placeholder="C to E"
              [value]="typed()"
              (input)="onTyped($event)"
              (keydown)="onKey($event)"
            />
          </div>
          <button type="submit" class="btn btn-solid" [disabled]="found().length === 0">Go there <kbd>Enter</kbd></button>
        </form>
      }
      <main class="layer page-fill">
        @if (typed().trim() !== '') {
          <ul id="found" class="rows" aria-label="What was found">
            @for (each of found(); track each.kind + each.text + each.page.to; let index = $index) {
              <li>
                <button type="button" class="row-link place-found" [class.is-chosen]="index === at()" (click)="go(each)">
                  <span>{{ each.text }}</span> <small class="second">{{ each.kind }}</small>
                </button>
              </li>
            } @empty {
              <li class="second" role="status">Nothing has that name. Try a few letters of it.</li>
            }
          </ul>
        } @else {
          <nav class="place-groups" aria-label="All pages" [style.--groups]="groups().length">
            @for (group of groups(); track group.name; let index = $index) {
              <section [attr.aria-labelledby]="'group-' + index">
                <h2 class="place-group" [id]="'group-' + index">
                  {{ group.name }}
                  @if (isStaff()) {
                    <kbd>{{ index + 1 }}</kbd>
                  }
                </h2>
                @for (page of group.pages; track page.to + page.name) {
                  <a class="place" [routerLink]="page.to" [queryParams]="page.query">{{ page.name }}</a>
                } @empty {
                  <p class="second">Open a tune or a sheet, and you can go on with it from here.</p>
                }
              </section>
            }
          </nav>
        }
      </main>
      @if (isStaff()) {
        <footer class="strip second places-keys">
          <span>From any page: <kbd>G</kbd> then <kbd>1</kbd> to <kbd>5</kbd></span>
        </footer>
      }
    </div>
  `,
})
export class PlacesPage implements OnDestroy {
  private readonly router = inject(Router);
  private readonly state = inject(StudioState);
  private readonly book = inject(MovementBook);
  private readonly notices = inject(NoticeService);
  protected readonly session = inject(SessionService);
  private readonly lastTune = inject(LastTune);
  protected readonly isStaff = computed(() => !this.session.isFamily());
  private readonly find = viewChild<ElementRef<HTMLInputElement>>('find');

  private readonly tunes = signal<readonly TuneSummary[]>([]);
  private readonly sheets = signal<readonly SheetSummary[]>([]);
  protected readonly typed = signal('');
  /** Which of what was found Enter takes. */
  protected readonly at = signal(0);

  /** The tune that was open last, and the student's newest sheet. */
  private readonly goOn = computed((): readonly Page[] => {
    const last = this.lastTune.read();
    const tune = this.tunes().find(({ id }) => id === last);
    const mine = this.sheets().filter(({ student }) => student.id === this.state.student()?.id);
    const [sheet] = [...mine].sort((one, other) => other.updatedAt.localeCompare(one.updatedAt));
    return [
      ...(tune === undefined ? [] : [{ name: tune.title, to: `/tunes/${tune.id}` }]),
      ...(sheet === undefined ? [] : [{ name: sheet.title, to: `/sheets/${sheet.id}` }]),
    ];
  });
  protected readonly groups = computed(() => (this.isStaff() ? groupsFor(this.session.isOwner(), this.goOn()) : studentPages));
  protected readonly found = computed(() =>
    destinationsFor(this.typed(), {
      instrument: this.state.instrument(),
      movements: this.book.own(),
      students: this.state.students(),
      tunes: this.tunes(),
      sheets: this.sheets(),
      pages: this.groups().flatMap(({ name, pages }) => (name === 'Today' ? [] : pages)),
    }),
  );

  private readonly release = inject(KeyService).use('pages', {
    first: () => this.goToGroup(0),
    second: () => this.goToGroup(1),
    third: () => this.goToGroup(2),
    fourth: () => this.goToGroup(3),
    fifth: () => this.goToGroup(4),
  });

  constructor() {
    if (this.isStaff()) {
      const error = (problem: unknown): void => this.notices.fault(problem);
      inject(TunesService)
        .list()
        .subscribe({ next: (tunes) => this.tunes.set(tunes), error });
      inject(SheetsService)
        .list()
        .subscribe({ next: (sheets) => this.sheets.set(sheets), error });
    }
    afterNextRender(() => this.find()?.nativeElement.focus());
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected onTyped(event: Event): void {
    this.typed.set((event.target as HTMLInputElement).value);
    this.at.set(0);
  }

  /** A digit in the empty field is a group; the arrows choose among what was found; Esc empties the field. */
  protected onKey(event: KeyboardEvent): void {
    const last = this.found().length - 1;
    if (this.typed() === '' && /^[1-5]$/.test(event.key)) this.goToGroup(Number(event.key) - 1);
    else if (event.key === 'ArrowDown') this.at.set(Math.min(last, this.at() + 1));
    else if (event.key === 'ArrowUp') this.at.set(Math.max(0, this.at() - 1));
    else if (event.key === 'Escape') this.typed.set('');
    else return;
    event.preventDefault();
  }

  protected goFirst(event: Event): void {
    event.preventDefault();
    const chosen = this.found()[this.at()];
    if (chosen !== undefined) this.go(chosen);
  }

  protected go(destination: Destination): void {
    if (destination.kind === 'student') this.state.choose(destination.student);
    const { to, query } = destination.page;
    void this.router.navigate([to], { queryParams: query ?? {} });
  }

  private goToGroup(index: number): void {
    const [page] = this.groups()[index]?.pages ?? [];
    if (page !== undefined) void this.router.navigate([page.to]);
  }
}
