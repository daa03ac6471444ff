import { Component, computed, inject, input, signal } from '@angular/core';
import {
  compileOrnament,
  noteOf,
  ornamentKinds,
  ornamentTimeline,
  scaleFrom,
  trillBetween,
  usualOrnaments,
  type CompiledOrnament,
  type Instrument,
  type NoteId,
  type OrnamentKind,
  type OrnamentSettings,
} from '@zelpit/core';
import { waySaid } from '../changes/change-words';
import { ChooserComponent, saidOf, type Choice } from '../shell/chooser.component';
import { Transport } from '../sound/transport.service';

const names: Readonly<Record<OrnamentKind, string>> = {
  cut: 'cut',
  tap: 'tap',
  'short-roll': 'short roll',
  'long-roll': 'long roll',
  'short-cran': 'short cran',
  'long-cran': 'long cran',
  'three-cut-cran': 'three-cut cran',
  slide: 'slide',
  stop: 'stop',
};
const schools: readonly Choice<OrnamentSettings['cuts']>[] = [
  { value: 'nearest', said: 'the nearest finger cuts' },
  { value: 'fixed', said: 'the same two fingers cut' },
];
const speeds: readonly Choice<number>[] = [
  { value: 1, said: 'at speed' },
  { value: 4, said: 'four times slower' },
];

/** Cuts, taps, rolls and crans of whistle and Irish pipes; trills of recorder and ocarina. */
@Component({
  selector: 'zp-ornaments',
  imports: [ChooserComponent],
  template: `
    @if (hasOrnaments()) {
      <p>
        <zp-chooser purpose="School" [word]="schoolSaid()" [choices]="schools" (chosen)="cuts.set($event)" /><span class="quiet">, heard </span>
        <zp-chooser purpose="Speed" [word]="speedSaid()" [choices]="speeds" (chosen)="slower.set($event)" />. Press one to hear it.
      </p>
      <div class="workshop-wide" tabindex="0" role="region" aria-label="Every ornament on every note">
        <table class="movement-table">
          <thead>
            <tr>
              <td class="map-corner">on ↓</td>
              @for (kind of kinds(); track kind.kind) {
                <th scope="col">{{ kind.name }}</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (row of rows(); track row.id) {
              <tr>
                <th scope="row">{{ row.name }}</th>
                @for (cell of row.cells; track cell.kind) {
                  <td>
                    @if (cell.isPossible) {
                      <button type="button" class="movement-cell" [attr.aria-label]="cell.said" [title]="cell.said" (click)="hear(row.id, cell.kind)">
                        <b>{{ cell.short }}</b>
                      </button>
                    } @else {
                      <span class="movement-none" [title]="cell.said">–</span>
                    }
                  </td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
      <p class="second">Fingers in their order: ↑ one that lifts for a cut, ↓ one that closes for a tap. – cannot be, with the reason under the pointer.</p>
    } @else {
      <table class="risk-table trill-table">
        <caption class="second">
          Trills with the note above: the pair of fingerings that moves fewest fingers within 30 cents. The model proposes, the teacher confirms.
        </caption>
        <tbody>
          @for (trill of trills(); track trill.name) {
            <tr>
              <th scope="row">{{ trill.name }}</th>
              <td>{{ trill.movers }}</td>
              <td>{{ trill.said }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
  `,
})
export class OrnamentsComponent {
  private readonly transport = inject(Transport);
  readonly instrument = input.required<Instrument>();

  protected readonly schools = schools;
  protected readonly speeds = speeds;
  protected readonly cuts = signal<OrnamentSettings['cuts']>('nearest');
  protected readonly slower = signal(1);
  protected readonly schoolSaid = computed(() => saidOf(schools, this.cuts()));
  protected readonly speedSaid = computed(() => saidOf(speeds, this.slower()));
  protected readonly hasOrnaments = computed(() => this.instrument().family === 'whistle' || this.instrument().family === 'irish-pipes');
  private readonly settings = computed((): OrnamentSettings => ({ ...usualOrnaments, cuts: this.cuts() }));
  /** A stop is the pipes' own. */
  protected readonly kinds = computed(() =>
    ornamentKinds.filter((kind) => kind !== 'stop' || this.instrument().family === 'irish-pipes').map((kind) => ({ kind, name: names[kind] })),
  );
  private readonly scale = computed(() => scaleFrom(this.instrument(), this.instrument().notes[0].id));

  protected readonly rows = computed(() =>
    this.hasOrnaments()
      ? this.scale().map((id) => ({
          id,
          name: noteOf(this.instrument(), id).schoolName,
          cells: this.kinds().map(({ kind, name }) => this.cell(id, kind, name)),
        }))
      : [],
  );
  protected readonly trills = computed(() => {
    const [instrument, scale] = [this.instrument(), this.scale()];
    if (this.hasOrnaments()) return [];
    return scale.slice(0, -1).map((id, index) => {
      const [main, upper] = [noteOf(instrument, id).schoolName, noteOf(instrument, scale[index + 1]).schoolName];
      const trill = trillBetween(instrument, id, scale[index + 1]);
      const moved = trill?.movers === 1 ? 'one finger' : `${trill?.movers ?? 0} fingers`;
      return {
        name: `${main} with ${upper}`,
        movers: trill === undefined ? 'none in tune' : moved,
        said: trill === undefined ? '' : `${waySaid(instrument, trill.main)}; ${waySaid(instrument, trill.upper)}`,
      };
    });
  });

  protected hear(note: NoteId, kind: OrnamentKind): void {
    const { eighthMs } = this.settings();
    this.transport.sound(this.instrument(), ornamentTimeline(this.instrument(), note, this.made(note, kind), eighthMs, this.slower()));
  }

  private made(note: NoteId, kind: OrnamentKind): CompiledOrnament {
    return compileOrnament(this.instrument(), kind, note, this.settings());
  }

  private cell(
    note: NoteId,
    kind: OrnamentKind,
    name: string,
  ): { readonly kind: OrnamentKind; readonly isPossible: boolean; readonly short: string; readonly said: string } {
    const made = this.made(note, kind);
    const on = noteOf(this.instrument(), note).schoolName;
    if (made.kind === 'unplayable') return { kind, isPossible: false, short: '', said: made.reason };
    const moves = made.steps.filter((step) => step.kind !== 'note');
    const short = moves.map((step) => `${step.fingers.join('')}${step.kind === 'cut' ? '↑' : '↓'}`).join(' ');
    const label = (finger: string): string => this.instrument().fingers.find(({ id }) => id === finger)?.label ?? finger;
    const words = moves.map(
      (step) => `${step.fingers.map(label).join(' ')} ${{ cut: 'cuts', tap: 'taps', slide: 'slides off', stop: 'stops', note: '' }[step.kind]}`,
    );
    return { kind, isPossible: true, short: short === '↓' ? 'all' : short, said: `${name} on ${on}: ${words.join(', then ')}` };
  }
}
