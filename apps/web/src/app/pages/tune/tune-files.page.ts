import { Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { waveFile } from '@zelpit/core/sound';
import { lossesOf, type TuneFormat } from '@zelpit/core/music-files';
import { messageOf } from '../../kernel/api/api.service';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { keptPaperSize } from '../../music/paper/paper-size';
import { Engraver } from '../../music/score/engraver.service';
import { WaveOptionsComponent } from '../../music/export/wave-options.component';
import type { ChosenFault } from '../../music/sound/sound-settings.service';
import { Transport } from '../../music/sound/transport.service';
import { TunePlayer } from './tune-player';

interface Format {
  readonly format: TuneFormat;
  readonly name: string;
  readonly use: string;
}

const formats: readonly Format[] = [
  { format: 'abc', name: 'ABC', use: 'the text as it is, for other music programs' },
  { format: 'musicxml', name: 'MusicXML', use: 'for notation programs' },
  { format: 'mxl', name: 'MusicXML, packed', use: 'the same as one small .mxl file' },
  { format: 'mid', name: 'MIDI', use: 'to play on a computer or keyboard' },
  { format: 'wav', name: 'WAV', use: 'the sound of the tune' },
  { format: 'pdf', name: 'PDF', use: 'to print' },
  { format: 'svg', name: 'SVG', use: 'a drawing that stays sharp at any size' },
  { format: 'png', name: 'PNG', use: 'a picture' },
];
const waveRate = 44_100;

/** Takes a tune out as a file, and says before what each kind cannot carry. */
@Component({
  selector: 'zp-tune-files',
  imports: [RouterLink, SentenceComponent, WaveOptionsComponent],
  providers: [TunePlayer],
  template: `
    <div class="page">
      <zp-sentence
        ><span class="quiet">Save </span><a class="chooser-word" [routerLink]="['/tunes', id()]">{{ opened()?.detail?.title ?? 'a tune' }}</a
        ><span class="quiet"> as a file</span></zp-sentence
      >
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">Go to the tunes</a>
        </main>
      } @else if (rows(); as all) {
        <section class="band" aria-label="What is saved">
          <div class="band-said">
            <p class="band-todo">{{ busy() === '' ? 'Choose what the file is for.' : 'Making the ' + busy() + ' …' }}</p>
            <p class="band-else">ABC keeps everything. What another kind cannot carry stands beside it.</p>
          </div>
          <div class="band-actions"><a class="btn btn-line" [routerLink]="['/tunes', id()]">Back to the tune</a></div>
        </section>
        <main class="layer page-fill">
          <ul class="rows file-kinds">
            @for (row of all; track row.format) {
              <li class="py-2">
                <button type="button" class="btn btn-line" [disabled]="busy() !== ''" [attr.aria-label]="'Save as ' + row.name" (click)="save(row.format)">
                  {{ row.name }}
                </button>
                <span>
                  <span class="d-block">{{ row.use }}</span>
                  @if (row.losses.length > 0) {
                    <small class="second">Not in it: {{ row.losses.join('; ') }}.</small>
                  }
                  @if (row.format === 'wav') {
                    <zp-wave-options class="d-block mt-1" [(fault)]="withFault" />
                  }
                </span>
              </li>
            }
          </ul>
        </main>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class TuneFilesPage {
  private readonly tunes = inject(TunesService);
  private readonly notices = inject(NoticeService);
  private readonly engraver = inject(Engraver);
  private readonly transport = inject(Transport);
  private readonly state = inject(StudioState);
  private readonly player = inject(TunePlayer);

  readonly id = input.required<string>();
  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly busy = signal('');
  /** The fault put into every change of the sound; empty for none. */
  protected readonly withFault = signal<ChosenFault | ''>('');
  protected readonly rows = computed(() => {
    const tune = this.opened()?.tune;
    return tune === undefined ? undefined : formats.map((each) => ({ ...each, losses: lossesOf(each.format, tune.score, tune.voice) }));
  });

  constructor() {
    effect((onCleanup) => {
      this.state.student();
      const opening = this.tunes.open(this.id()).subscribe({
        next: (opened) => this.opened.set(opened),
        error: (error: unknown) => this.fault.set(messageOf(error)),
      });
      onCleanup(() => opening.unsubscribe());
    });
  }

  protected async save(format: TuneFormat): Promise<void> {
    const opened = this.opened();
    if (opened === undefined) return;
    this.busy.set(formats.find((each) => each.format === format)?.name ?? 'file');
    try {
      saveFile(fileNameOf(opened.detail.title, format), await this.made(format, opened));
    } catch (error) {
      if (format === 'pdf' || format === 'svg' || format === 'png')
        this.notices.done('The drawing could not be made because its fonts did not load. Try again.');
      else this.notices.fault(error);
    } finally {
      this.busy.set('');
    }
  }

  private async made(format: TuneFormat, opened: OpenedTune): Promise<Blob> {
    const { tune, detail } = opened;
    const files = await import('../../music/export/tune-files');
    switch (format) {
      case 'abc':
        return files.abcFile(detail.abc);
      case 'musicxml':
        return files.musicXmlFile(tune);
      case 'mxl':
        return files.packedMusicXmlFile(tune);
      case 'mid':
        return files.tuneMidiFile(tune, this.player.tempoOf(opened));
      case 'wav':
        return new Blob([waveFile(await this.transport.samples(this.player.onceThrough(opened, this.withFault() !== ''), waveRate), waveRate)], {
          type: 'audio/wav',
        });
      case 'pdf': {
        const [{ tunePages }, { sheetPdf }] = await Promise.all([import('../../music/export/tune-pages'), import('../../music/paper/sheet-pdf')]);
        return sheetPdf(await tunePages(this.engraver, tune, keptPaperSize()), keptPaperSize(), tune.title);
      }
      case 'svg':
      case 'png': {
        const { tunePicture, svgFile, pngFile } = await import('../../music/export/tune-pages');
        const picture = await tunePicture(this.engraver, tune, keptPaperSize());
        return format === 'svg' ? svgFile(picture) : pngFile(picture);
      }
    }
  }
}
