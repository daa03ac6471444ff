import { DatePipe } from '@angular/common';
import { Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { takeDays, type Take } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { TakesService } from '../../studio/takes/takes.service';
import { LogbookItemComponent } from './logbook-item.component';

const dayTexts: Readonly<Record<(typeof takeDays)[number], string>> = { 7: 'another week', 90: 'another three months', 0: 'until it is deleted' };
const dayMs = 86_400_000;

interface Group {
  readonly title: string;
  /** The title, and whose it is where it is a teacher's. */
  readonly label: string;
  readonly isFirstOfTeachers: boolean;
  readonly takes: readonly Take[];
  /** Of each take how much of it was clean, in hundredths, the oldest first, one after the other. */
  readonly ribbon: { readonly title: string; readonly weeks: readonly { readonly week: number; readonly best: number }[] };
}

const shareOf = ({ places, faulty }: Take): number => (places === 0 ? 0 : Math.round(((places - faulty) / places) * 100));

function groupsOf(all: readonly Take[]): readonly Group[] {
  return [...new Set(all.map(({ title }) => title))].map((title) => {
    const takes = all.filter((take) => take.title === title);
    const ribbon = { title, weeks: [...takes].reverse().map((take, week) => ({ week, best: shareOf(take) })) };
    return { title, label: title, isFirstOfTeachers: false, takes, ribbon };
  });
}

/** The takes of a student that are kept: what was in each, how the same thing went over weeks, how long each is kept. */
@Component({
  selector: 'zp-takes',
  imports: [SentenceComponent, ForWhomComponent, ChooserComponent, RouterLink, DatePipe, LogbookItemComponent],
  template: `
    <div class="page">
      @if (isStaff()) {
        <zp-sentence place="Students"><span>Kept takes</span><zp-for-whom [hasInstrument]="false" /></zp-sentence>
      } @else {
        <zp-sentence>
          <a sentenceEnd class="word" routerLink="/mine">My sheets</a>
          <span class="quiet">Kept takes of </span><span>{{ alias() }}</span>
        </zp-sentence>
      }
      <section class="band" aria-label="What there is">
        <div class="band-said">
          <p class="band-todo">{{ said() }}</p>
          <p class="band-else">They lie on the studio’s own server, are in a backup only where that is chosen, and go by themselves when their time is over.</p>
        </div>
        @if (isStaff() && takes().length > 0) {
          <div class="band-actions">
            @if (asksForAll()) {
              <button type="button" class="btn btn-solid" (click)="dropAll()">
                Delete {{ takes().length === 1 ? 'it' : 'all ' + takes().length }} for good
              </button>
              <button type="button" class="btn btn-line" (click)="asksForAll.set(false)">Keep them</button>
            } @else {
              <button type="button" class="btn btn-line" (click)="asksForAll.set(true)">Delete all of {{ alias() }}’s</button>
            }
          </div>
        }
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
          <button type="button" class="btn btn-solid" (click)="load(student())">Try again</button>
        } @else if (isLoading()) {
          <p class="second" role="status">Opening the takes …</p>
        } @else {
          @for (group of groups(); track group.label) {
            @if (group.isFirstOfTeachers) {
              <h2 class="group-title mt-4">Recorded by teachers of themselves</h2>
            }
            <section [attr.aria-label]="group.label">
              <h2 class="heading mt-3">{{ group.title }}</h2>
              @if (group.takes.length > 1) {
                <div class="take-weeks">
                  <zp-logbook-item [item]="group.ribbon" what="how much was clean, of a hundred" [from]="0" [to]="group.takes.length - 1" />
                  <p class="second mb-0">{{ comparedText(group) }}</p>
                </div>
              }
              <ul class="rows">
                @for (take of group.takes; track take.id) {
                  <li class="take-row">
                    <a class="row-link" [routerLink]="pathOf(take)" [queryParams]="queryOf(take)">
                      <span>{{ take.at | date: 'EEE d MMM, HH:mm' }}</span>
                      <small dir="auto">{{ take.text }}</small>
                      @if (take.isShown) {
                        <small>students hear it beside theirs</small>
                      }
                      @if (take.remarks.length > 0) {
                        <small>{{ count(take.remarks.length, 'remark') }}</small>
                      }
                    </a>
                    <span class="take-kept">
                      <span class="second">{{ keptText(take) }}</span>
                      @if (isStaff()) {
                        <zp-chooser
                          [purpose]="'How long the take of ' + (take.at | date: 'd MMM, HH:mm:ss') + ' is kept'"
                          word="keep it longer"
                          [value]="-1"
                          [choices]="dayChoices"
                          (valueChange)="keepFor(take, $event)"
                        />
                      }
                      @if (!isParent()) {
                        <button type="button" class="word" [attr.aria-label]="'Delete the take of ' + (take.at | date: 'd MMM, HH:mm:ss')" (click)="drop(take)">
                          {{ asked() === take.id ? 'Delete it for good' : 'Delete' }}
                        </button>
                      }
                    </span>
                  </li>
                }
              </ul>
            </section>
          } @empty {
            <div class="empty">
              <p>No take is kept yet.</p>
              @if (!isParent()) {
                <a class="btn btn-solid" routerLink="/changes/take">Record a take</a>
              }
            </div>
          }
        }
      </main>
    </div>
  `,
})
export class TakesPage {
  private readonly service = inject(TakesService);
  private readonly notices = inject(NoticeService);
  private readonly session = inject(SessionService);
  private readonly state = inject(StudioState);
  protected readonly isStaff = computed(() => !this.session.isFamily());
  protected readonly isParent = computed(() => this.session.role() === 'parent');
  protected readonly student = computed(() => (this.isStaff() ? this.state.student()?.id : this.session.person()?.id));
  protected readonly alias = computed(() => (this.isStaff() ? this.state.student()?.alias : this.session.person()?.name) ?? '');
  protected readonly takes = signal<readonly Take[]>([]);
  /** What teachers recorded of themselves: for those who teach. */
  protected readonly ofTeachers = signal<readonly Take[]>([]);
  protected readonly isLoading = signal(true);
  protected readonly fault = signal('');
  /** The take that is deleted by the next press. */
  protected readonly asked = signal('');
  protected readonly asksForAll = signal(false);
  protected readonly now = Date.now();
  protected readonly count = count;
  protected readonly dayChoices: readonly Choice<number>[] = takeDays.map((value) => ({ value, label: dayTexts[value] }));

  protected readonly groups = computed((): readonly Group[] => [
    ...groupsOf(this.takes()),
    ...groupsOf(this.ofTeachers()).map((group, index) => ({ ...group, label: `${group.title}, by a teacher`, isFirstOfTeachers: index === 0 })),
  ]);
  protected readonly said = computed(() => {
    const all = this.takes().length;
    return all === 0 ? `No take of ${this.alias()} is kept.` : `${count(all, 'take')} kept, the newest first.`;
  });

  constructor() {
    effect(() => {
      const student = this.student();
      untracked(() => this.load(student));
    });
    effect(() => {
      if (!this.isStaff()) return;
      untracked(() =>
        this.service.ofTeachers().subscribe({ next: (takes) => this.ofTeachers.set(takes), error: (error: unknown) => this.fault.set(messageOf(error)) }),
      );
    });
  }

  protected load(student: string | undefined): void {
    this.takes.set([]);
    this.fault.set('');
    if (student === undefined) return;
    this.isLoading.set(true);
    this.service.of(student).subscribe({
      next: (takes) => {
        if (this.student() !== student) return;
        this.takes.set(takes);
        this.isLoading.set(false);
      },
      error: (error: unknown) => {
        this.isLoading.set(false);
        this.fault.set(messageOf(error));
      },
    });
  }

  /** "Six of eight clean at first, eight of eight now." */
  protected comparedText({ takes }: Group): string {
    const said = ({ places, faulty }: Take): string => `${places - faulty} of ${places}`;
    return `${said(takes[takes.length - 1])} clean at first, ${said(takes[0])} in the last.`;
  }

  protected keptText({ keptUntil }: Take): string {
    if (keptUntil === null) return 'kept until it is deleted';
    const days = Math.max(0, Math.ceil((Date.parse(keptUntil) - this.now) / dayMs));
    return `kept for ${count(days, 'day')} more`;
  }

  protected pathOf({ asked }: Take): readonly string[] | null {
    // A parent reads what was in it.
    if (this.isParent()) return null;
    if (asked.kind === 'line') return ['/c', asked.code, 'take'];
    return asked.kind === 'changes' ? ['/changes/take'] : ['/tunes', asked.tuneId, 'take'];
  }

  protected queryOf({ id, asked }: Take): Readonly<Record<string, string>> {
    if (asked.kind === 'line') return { kept: id };
    return asked.kind === 'changes' ? { from: asked.from, to: asked.to, kept: id } : { part: asked.what, kept: id };
  }

  private change(changed: (takes: readonly Take[]) => readonly Take[]): void {
    this.takes.update(changed);
    this.ofTeachers.update(changed);
  }

  protected keepFor({ id, remarks, version }: Take, days: number): void {
    const keepDays = takeDays.find((each) => each === days);
    if (keepDays === undefined) return;
    this.service.save(id, { remarks, keepDays, version }).subscribe({
      next: (saved) => this.change((takes) => takes.map((take) => (take.id === id ? saved : take))),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** What goes here is gone: the first press asks, the second does it. */
  protected drop({ id }: Take): void {
    if (this.asked() !== id) {
      this.asked.set(id);
      return;
    }
    this.service.drop(id).subscribe({
      next: () => {
        this.change((takes) => takes.filter((take) => take.id !== id));
        this.notices.done('The take was deleted for good, with its sound.');
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected dropAll(): void {
    const student = this.student();
    if (student === undefined) return;
    this.service.dropOf(student).subscribe({
      next: ({ deleted }) => {
        this.asksForAll.set(false);
        this.takes.set([]);
        this.notices.done(`${count(deleted, 'take was', 'takes were')} deleted for good, with their sound.`);
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }
}
