import { computed, effect, untracked, type Signal } from '@angular/core';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { isNoteFaulty, noteText, passesText, pieceText, whereOf, worstNotesFirst, type AskedNote, type JudgedNote } from '@zelpit/core/listening';
import { capital } from '@zelpit/core/words';
import { adviceFor, changeBetween, troubleOf, type Advice } from '@zelpit/core/change';
import type { PlaceWords } from '../../music/listening/take-frame.component';
import { TakeReview } from '../../music/listening/take-review';
import type { TakeSource } from '../../music/listening/take-source.service';

/** What was heard of a piece, note by note, as a page shows it; to be made where a page is made. */
export class PieceReview {
  /** What sound cannot tell. */
  readonly untold = 'A grace note that sounds as the note beside it does cannot be heard, nor the shape of a hand.';
  readonly piece = computed(() => {
    const heard = this.source.answer()?.heard;
    return heard?.kind === 'piece' ? heard.piece : undefined;
  });
  readonly review = new TakeReview<JudgedNote>(
    computed(() => this.piece()?.notes ?? []),
    { worstFirst: worstNotesFirst, isFaulty: isNoteFaulty },
  );
  readonly text = computed(() => {
    const piece = this.piece();
    return piece === undefined ? '' : pieceText(this.instrument(), piece, this.review.decided());
  });
  /** How it went beside its notes. */
  readonly passes = computed(() => {
    const piece = this.piece();
    return piece === undefined ? '' : passesText(this.instrument(), piece, this.source.click());
  });
  /** How places are said and heard on the instrument. */
  readonly words = computed((): PlaceWords<JudgedNote> => {
    const instrument = this.instrument();
    return {
      name: (note) => capital(whereOf(note)),
      text: (note) => noteText(instrument, note),
      isSame: (note, other) => note.asked === other.asked,
      clean: (note) => {
        const { note: theme, graceNotes } = this.asked()[note.asked];
        const before = this.before(note);
        return { instrument, notes: [...(before === undefined ? [] : [{ note: before, graceNotes: [] }]), { note: theme, graceNotes }] };
      },
    };
  });
  /** What helps the worst place; where all is clean, what comes next. */
  readonly advice = computed((): Pick<Advice, 'todo' | 'otherwise'> => {
    const [worst] = this.review.worst();
    if (this.review.all().length === 0)
      return { todo: `Play ${this.title()} from its beginning, or from any bar.`, otherwise: 'Stops and new starts are followed.' };
    if (worst === undefined)
      return {
        todo: 'Clean. Now what comes after it, or a little faster.',
        otherwise: 'Correct but slower is right, too: do not leave anything out to keep up.',
      };
    const change = this.changeAt(worst);
    if (change !== undefined) return adviceFor(this.instrument(), change, troubleOf(this.instrument(), change));
    if (worst.verdict === 'elements' || worst.verdict === 'held')
      return {
        todo: `${capital(whereOf(worst))}, slowly: every grace note by itself, then together.`,
        otherwise: 'A simpler one is better than one with a piece missing.',
      };
    return { todo: `${capital(whereOf(worst))} by itself, slowly, until four are clean in a row.`, otherwise: 'First the notes, then the timing.' };
  });

  constructor(
    private readonly source: TakeSource,
    private readonly instrument: Signal<Instrument>,
    private readonly asked: Signal<readonly AskedNote[]>,
    private readonly title: Signal<string>,
  ) {
    // Something else that is asked, another click or another instrument hears the same recording anew.
    effect(() => {
      this.asked();
      this.source.samples();
      this.source.click();
      untracked(() => this.listen());
    });
  }

  private listen(): void {
    if (this.source.samples() === undefined || this.asked().length === 0 || this.source.wasGivenBack()) return;
    const click = this.source.click();
    this.review.begin();
    this.source.listen(this.instrument(), { kind: 'piece', notes: this.asked(), ...(click !== undefined && { click: { beatMs: 60_000 / click } }) }, () =>
      this.review.choosesWorst(),
    );
  }

  /** The bare change that went wrong at a place; undefined where it is something else. */
  changeAt(place: JudgedNote): ReturnType<typeof changeBetween> | undefined {
    const before = this.before(place);
    if ((place.verdict !== 'noise' && place.verdict !== 'gap') || place.graces.length > 0 || before === undefined) return undefined;
    return changeBetween(this.instrument(), before, place.note);
  }

  /** The note that was asked for before this one, where both follow each other. */
  private before({ asked }: JudgedNote): NoteId | undefined {
    return this.asked()[asked - 1]?.note ?? undefined;
  }
}
