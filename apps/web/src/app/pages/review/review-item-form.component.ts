import { Component, computed, input, output } from '@angular/core';
import { hasMusic, sheetLimits, type MusicItemInput, type WordsItemInput } from '@zelpit/contract';
import { activities, activityNames, focuses, focusNames, itemMarks, markNames, type ItemDetails } from '@zelpit/core/review';
import type { DraftLine } from '../../documents/sheet/line-input';

/** What is changed of an item, and what it is called in the list of what can be undone. */
export interface ItemEdit {
  readonly change: Partial<MusicItemInput> | Partial<WordsItemInput>;
  readonly text: string;
}

type Pace = 'free' | 'click' | 'free-first' | 'ladder';
const usualTempo = 60;
const mostSeconds = 600;
const mostMinutes = 120;

/** Everything that an item of a review says, to be changed: how often, how fast, for what, what to watch. */
@Component({
  selector: 'zp-review-item-form',
  template: `
    @let item = this.item();
    @let said = details();
    <div class="review-fields">
      @if (item.kind === 'words') {
        <div class="wide">
          <label [attr.for]="key('text')">What is to be done</label>
          <input class="form-control" [id]="key('text')" [attr.maxlength]="limits.words" autocomplete="off" [value]="item.text" (change)="setText($event)" />
        </div>
        <div>
          <label [attr.for]="key('activity')">What it is</label>
          <select class="form-select" [id]="key('activity')" (change)="say({ activity: $any(valueOf($event)) }, 'what it is')">
            @for (each of activities; track each) {
              <option [value]="each" [selected]="(said.activity ?? 'other') === each">{{ activityNames[each] }}</option>
            }
          </select>
        </div>
      }
      <div>
        <label [attr.for]="key('times')">{{ item.kind === 'line' && !item.exercise ? 'Lines (8 changes each)' : 'Times' }}</label>
        <span class="field-row">
          <input
            type="number"
            class="form-control narrow"
            min="1"
            [max]="limits.repetitions"
            [id]="key('times')"
            [disabled]="said.isOnceOrTwice === true"
            [value]="item.repetitions"
            (change)="setTimes($event)"
          />
          <label class="check-label"
            ><input
              type="checkbox"
              class="form-check-input"
              [checked]="said.isOnceOrTwice === true"
              (change)="say({ isOnceOrTwice: ticked($event) }, 'how often')"
            />
            once or twice</label
          >
        </span>
      </div>
      @if (item.kind === 'words') {
        <div>
          <label [attr.for]="key('seconds')">Seconds each</label>
          <input
            type="number"
            class="form-control narrow"
            min="1"
            [max]="mostSeconds"
            [id]="key('seconds')"
            [value]="said.seconds ?? ''"
            (change)="sayNumber('seconds', $event, mostSeconds)"
          />
        </div>
      } @else {
        <div>
          <label [attr.for]="key('pace')">Pace</label>
          <span class="field-row">
            <select class="form-select" [id]="key('pace')" (change)="setPace($any(valueOf($event)))">
              <option value="free" [selected]="pace() === 'free'">no click</option>
              <option value="click" [selected]="pace() === 'click'">with the click</option>
              <option value="free-first" [selected]="pace() === 'free-first'">no click, then with it</option>
              <option value="ladder" [selected]="pace() === 'ladder'">tempo ladder, up to</option>
            </select>
            @if (item.tempo !== null) {
              <input
                type="number"
                class="form-control narrow"
                aria-label="Beats a minute"
                [min]="limits.slowest"
                [max]="limits.fastest"
                [disabled]="said.against !== undefined && !isFirst()"
                [value]="item.tempo"
                (change)="setTempo($event)"
              />
            }
          </span>
        </div>
        @if (!isFirst()) {
          <div>
            <label [attr.for]="key('against')">Against the item before</label>
            <select class="form-select" [id]="key('against')" (change)="say({ against: $any(valueOf($event)) || undefined }, 'the tempo')">
              <option value="" [selected]="said.against === undefined">a tempo of its own</option>
              <option value="same" [selected]="said.against === 'same'">the same tempo</option>
              <option value="slower" [selected]="said.against === 'slower'">a little slower</option>
              <option value="faster" [selected]="said.against === 'faster'">a little faster</option>
            </select>
          </div>
        }
      }
      <div>
        <label [attr.for]="key('focus')">For</label>
        <select class="form-select" [id]="key('focus')" (change)="say({ focus: $any(valueOf($event)) || undefined }, 'what it is for')">
          <option value="" [selected]="said.focus === undefined">nothing in particular</option>
          @for (each of focuses; track each) {
            <option [value]="each" [selected]="said.focus === each">{{ focusNames[each] }}</option>
          }
        </select>
      </div>
      <div class="wide">
        <label [attr.for]="key('point')">What to watch for</label>
        <input class="form-control" [id]="key('point')" [attr.maxlength]="limits.point" autocomplete="off" [value]="item.point" (input)="setPoint($event)" />
      </div>
      <div class="wide">
        <label [attr.for]="key('tooFast')">When it is too fast</label>
        <input
          class="form-control"
          [id]="key('tooFast')"
          maxlength="300"
          autocomplete="off"
          [value]="said.tooFast ?? ''"
          (input)="sayText('tooFast', $event)"
        />
      </div>
    </div>
    <details class="review-more">
      <summary>More about it</summary>
      <div class="review-fields">
        <div>
          <label [attr.for]="key('minutes')">Minutes a day</label>
          <input
            type="number"
            class="form-control narrow"
            min="1"
            [max]="mostMinutes"
            [id]="key('minutes')"
            [value]="said.minutes ?? ''"
            (change)="sayNumber('minutes', $event, mostMinutes)"
          />
        </div>
        @if (item.kind !== 'words') {
          <div>
            <label [attr.for]="key('countIn')">Beats of count-in</label>
            <input
              type="number"
              class="form-control narrow"
              min="0"
              max="16"
              [id]="key('countIn')"
              [value]="said.countIn ?? ''"
              (change)="sayNumber('countIn', $event, 16, 0)"
            />
          </div>
        }
        <div>
          <label [attr.for]="key('page')">Page of the student’s own book</label>
          <input class="form-control narrow" [id]="key('page')" maxlength="80" autocomplete="off" [value]="said.page ?? ''" (input)="sayText('page', $event)" />
        </div>
        <div>
          <label [attr.for]="key('mark')">On purpose</label>
          <select class="form-select" [id]="key('mark')" (change)="say({ mark: $any(valueOf($event)) || undefined }, 'its mark')">
            <option value="" [selected]="said.mark === undefined">as it stands</option>
            @for (each of marks; track each) {
              <option [value]="each" [selected]="said.mark === each">{{ markNames[each] }}</option>
            }
          </select>
        </div>
        <label class="check-label"
          ><input
            type="checkbox"
            class="form-check-input"
            [checked]="said.isSpread === true"
            (change)="say({ isSpread: ticked($event) }, 'how it is spread')"
          />
          an hour or two in all, spread over lessons</label
        >
        <div class="wide">
          <label [attr.for]="key('musical')">What it is for in the music</label>
          <input
            class="form-control"
            [id]="key('musical')"
            maxlength="200"
            autocomplete="off"
            [value]="said.musical ?? ''"
            (input)="sayText('musical', $event)"
          />
        </div>
        <div class="wide">
          <label [attr.for]="key('physical')">What it is for in the hands</label>
          <input
            class="form-control"
            [id]="key('physical')"
            maxlength="200"
            autocomplete="off"
            [value]="said.physical ?? ''"
            (input)="sayText('physical', $event)"
          />
        </div>
        <div class="wide">
          <label [attr.for]="key('praise')">Praise</label>
          <input class="form-control" [id]="key('praise')" maxlength="300" autocomplete="off" [value]="said.praise ?? ''" (input)="sayText('praise', $event)" />
        </div>
      </div>
    </details>
  `,
})
export class ReviewItemFormComponent {
  readonly item = input.required<DraftLine>();
  /** True where no item stands before it. */
  readonly isFirst = input(false);
  readonly edited = output<ItemEdit>();

  protected readonly limits = sheetLimits;
  protected readonly mostSeconds = mostSeconds;
  protected readonly mostMinutes = mostMinutes;
  protected readonly activities = activities;
  protected readonly activityNames = activityNames;
  protected readonly focuses = focuses;
  protected readonly focusNames = focusNames;
  protected readonly marks = itemMarks;
  protected readonly markNames = markNames;

  protected readonly details = computed((): ItemDetails => this.item().details ?? {});
  protected readonly pace = computed((): Pace => {
    const { isLadder, isFreeFirst } = this.details();
    if (isLadder === true) return 'ladder';
    if (this.item().tempo === null) return 'free';
    return isFreeFirst === true ? 'free-first' : 'click';
  });

  protected readonly key = (field: string): string => `${field}-${this.item().id}`;
  protected readonly valueOf = (event: Event): string => (event.target as HTMLSelectElement).value;
  protected readonly ticked = (event: Event): true | undefined => ((event.target as HTMLInputElement).checked ? true : undefined);

  /** What is empty is not said. */
  protected say(change: Partial<ItemDetails>, text: string, beside: Partial<MusicItemInput> = {}): void {
    const all = Object.entries({ ...this.details(), ...change }).filter(([, value]) => value !== undefined && value !== '');
    const details: ItemDetails | null = all.length === 0 ? null : (Object.fromEntries(all) as ItemDetails);
    this.edited.emit({ change: { ...beside, details }, text });
  }

  protected sayText(field: 'tooFast' | 'page' | 'musical' | 'physical' | 'praise', event: Event): void {
    this.say({ [field]: this.valueOf(event) }, 'what is said of it');
  }

  protected sayNumber(field: 'minutes' | 'seconds' | 'countIn', event: Event, most: number, least = 1): void {
    const value = numberIn(event, least, most);
    this.say({ [field]: value }, field === 'minutes' ? 'its minutes' : 'how long it takes');
  }

  protected setPace(pace: Pace): void {
    const { item } = { item: this.item() };
    if (!hasMusic(item)) return;
    const tempo = pace === 'free' ? null : (item.tempo ?? usualTempo);
    const flags = { isLadder: pace === 'ladder' ? (true as const) : undefined, isFreeFirst: pace === 'free-first' ? (true as const) : undefined };
    this.say(pace === 'free' ? { ...flags, against: undefined } : flags, 'its pace', { tempo, speeds: null });
  }

  protected setTempo(event: Event): void {
    const tempo = numberIn(event, sheetLimits.slowest, sheetLimits.fastest) ?? this.item().tempo;
    this.edited.emit({ change: { tempo }, text: 'its tempo' });
  }

  protected setTimes(event: Event): void {
    const repetitions = numberIn(event, 1, sheetLimits.repetitions) ?? this.item().repetitions;
    this.edited.emit({ change: { repetitions }, text: 'how often' });
  }

  protected setPoint(event: Event): void {
    this.edited.emit({ change: { point: this.valueOf(event) }, text: 'what to watch for' });
  }

  /** Words that are emptied stay as they were. */
  protected setText(event: Event): void {
    const item = this.item();
    const text = this.valueOf(event).trim();
    if (text !== '') this.edited.emit({ change: { text }, text: 'what is to be done' });
    else if (!hasMusic(item)) (event.target as HTMLInputElement).value = item.text;
  }
}

/** A typed whole number within its limits; undefined for none. The field shows what holds. */
function numberIn(event: Event, least: number, most: number): number | undefined {
  const field = event.target as HTMLInputElement;
  const typed = Math.round(field.valueAsNumber);
  const value = Number.isFinite(typed) ? Math.min(most, Math.max(least, typed)) : undefined;
  field.value = value === undefined ? '' : String(value);
  return value;
}
