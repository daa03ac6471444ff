import { Component, computed, inject, input, signal } from '@angular/core';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import type { Instrument } from '@zelpit/core/fingering';
import { linesAsAbc, pacesOf } from '@zelpit/core/line';
import { playNotes, renderTimeline, waveFile } from '@zelpit/core/sound';
import { hasMusic } from '@zelpit/contract';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import type { SheetItem, SheetOnPaper } from '../paper/paper-layout';
import { keptPaperSize } from '../paper/paper-size';
import { SheetPrinter } from '../paper/sheet-printer.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { nameOf } from '../../studio/shelf/instrument-shelf.service';
import { joined } from '../sound/joined';
import { SoundSettings, type ChosenFault } from '../sound/sound-settings.service';
import { WaveOptionsComponent } from './wave-options.component';
import { LinePlayer } from '../lines/line-player.service';

type Kind = 'abc' | 'musicxml' | 'mid' | 'wav' | 'pdf';
const kinds: readonly { readonly kind: Kind; readonly text: string }[] = [
  { kind: 'abc', text: 'ABC, for other music programs' },
  { kind: 'musicxml', text: 'MusicXML, for notation programs' },
  { kind: 'mid', text: 'MIDI, to play on a computer or keyboard' },
  { kind: 'pdf', text: 'PDF, to print' },
];
const waveRate = 44_100;
/** Silence between two lines, in s. */
const pauseSeconds = 1.5;

/** Takes lines out as files. */
@Component({
  selector: 'zp-export-lines',
  imports: [NgbDropdownModule, WaveOptionsComponent],
  template: `
    <span ngbDropdown #menu="ngbDropdown" placement="bottom-end" autoClose="outside">
      <button type="button" class="btn btn-line" ngbDropdownToggle [disabled]="lines().length === 0 || busy() !== ''">
        {{ busy() === '' ? 'Save as a file' : 'Making the ' + busy() + ' …' }}
      </button>
      <span ngbDropdownMenu>
        @for (each of kinds; track each.kind) {
          <button type="button" ngbDropdownItem (click)="menu.close(); save(each.kind)">{{ each.text }}</button>
        }
        <span class="d-block px-3 py-2" role="group" aria-label="WAV, the sound of each line, once">
          <button type="button" class="word" (click)="menu.close(); save('wav')">WAV, the sound of each line, once</button>
          <zp-wave-options class="d-block my-2" [(fault)]="fault" />
        </span>
      </span>
    </span>
  `,
})
export class ExportLinesComponent {
  private readonly notices = inject(NoticeService);
  private readonly player = inject(LinePlayer);
  private readonly printer = inject(SheetPrinter);
  private readonly sound = inject(SoundSettings);
  readonly instrument = input.required<Instrument>();
  readonly title = input.required<string>();
  readonly note = input('');
  /** Words alone are on paper only. */
  readonly lines = input.required<readonly (SheetItem & { readonly code?: string })[]>();
  private readonly music = computed(() => this.lines().filter(hasMusic));

  protected readonly kinds = kinds;
  /** The fault put into every change of a sound file; empty for none. */
  protected readonly fault = signal<ChosenFault | ''>('');
  protected readonly busy = signal('');
  private readonly onPaper = computed((): SheetOnPaper => ({
    ...{ title: this.title(), note: this.note(), about: `${nameOf(this.instrument())}.`, instrument: this.instrument() },
    lines: this.lines().map((line) => ({ ...line, code: line.code ?? '' })),
  }));

  protected async save(kind: Kind): Promise<void> {
    this.busy.set(kind === 'pdf' ? 'PDF' : 'file');
    try {
      saveFile(fileNameOf(this.title(), kind), await this.made(kind));
    } catch (error) {
      if (kind === 'pdf') this.notices.done('The PDF could not be made because its fonts did not load. Try again.');
      else this.notices.fault(error);
    } finally {
      this.busy.set('');
    }
  }

  private async made(kind: Kind): Promise<Blob> {
    const [instrument, lines] = [this.instrument(), this.music()];
    switch (kind) {
      case 'abc':
        return new Blob([linesAsAbc(instrument, this.title(), lines)], { type: 'text/vnd.abc' });
      case 'musicxml': {
        const { musicXml } = await import('./music-xml');
        return new Blob([musicXml(instrument, this.title(), lines)], { type: 'application/vnd.recordare.musicxml+xml' });
      }
      case 'mid': {
        const { midiFile } = await import('./midi-file');
        return new Blob([midiFile(instrument, this.title(), lines)], { type: 'audio/midi' });
      }
      case 'pdf':
        return this.printer.pdf(this.onPaper(), keptPaperSize());
      case 'wav':
        return new Blob([waveFile(this.samples(), waveRate)], { type: 'audio/wav' });
    }
  }

  /** Every line once at its pace, or at each of its speeds, one after another. */
  private samples(): Float32Array {
    const pause = new Float32Array(Math.round(pauseSeconds * waveRate));
    const paced = this.music().flatMap((line) => pacesOf(line).map((tempo) => ({ ...line, tempo })));
    const parts = paced.flatMap((line) => {
      const { instrument, notes, settings } = this.player.playable('file', this.instrument(), line, 1, this.fault() !== '');
      return [renderTimeline(instrument, playNotes(instrument, notes, settings), { sampleRate: waveRate, ...this.sound.colour() }), pause];
    });
    return joined(parts);
  }
}
