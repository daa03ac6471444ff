import { Component, computed, inject, input, output, type OnDestroy } from '@angular/core';
import type { PacedLine } from '@zelpit/core/line';
import { KeyService } from '../../kernel/keys/key.service';
import { SoundMenuComponent } from '../sound/sound-menu.component';
import { SoundSettings } from '../sound/sound-settings.service';
import { TempoComponent } from '../sound/tempo.component';
import { Transport } from '../sound/transport.service';
import { LinePlayer } from './line-player.service';

/** The sound strip of pages that hold lines: it plays the chosen one. */
@Component({
  selector: 'zp-line-strip',
  imports: [TempoComponent, SoundMenuComponent],
  template: `
    <button type="button" class="btn btn-solid" [disabled]="!line()" (click)="toggle()">
      @if (transport.playing()) {
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true"><rect x="2" y="2" width="16" height="16" rx="3" fill="currentColor" /></svg>Stop
      } @else {
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true"><path d="M3 2L18 10L3 18Z" fill="currentColor" /></svg>Play
      }
      <kbd>Space</kbd>
    </button>
    <button type="button" class="btn btn-line" [disabled]="!line()" (click)="start(true)">Faulty <kbd>F</kbd></button>
    <span class="strip-said">{{ title() }}</span>
    <zp-tempo [beats]="tempo()" [written]="line()?.tempo === null ? 'for listening only' : 'as on the sheet'" (slower)="slower()" (faster)="faster()" />
    <zp-sound-menu [hasBars]="false" />
  `,
  host: { class: 'strip', role: 'region', 'aria-label': 'Sound' },
})
export class LineStripComponent implements OnDestroy {
  private readonly player = inject(LinePlayer);
  private readonly sound = inject(SoundSettings);
  protected readonly transport = inject(Transport);
  readonly line = input.required<PacedLine | undefined>();
  readonly title = input.required<string>();
  /** Play the chosen line; true with the fault. */
  readonly playLine = output<boolean>();

  protected readonly tempo = computed(() => {
    const line = this.line();
    return line === undefined ? 0 : this.player.tempoOf(line);
  });

  private wasFaulty = false;
  private readonly release = inject(KeyService).use('line', {
    play: () => this.toggle(),
    faulty: () => this.start(true),
    slower: () => this.slower(),
    faster: () => this.faster(),
  });

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  protected toggle(): void {
    if (this.transport.playing() !== undefined) this.transport.stop();
    else this.start(false);
  }

  protected slower(): void {
    this.sound.slower();
    this.again();
  }

  protected faster(): void {
    this.sound.faster();
    this.again();
  }

  protected start(isFaulty: boolean): void {
    this.wasFaulty = isFaulty;
    this.playLine.emit(isFaulty);
  }

  private again(): void {
    if (this.transport.playing() !== undefined) this.playLine.emit(this.wasFaulty);
  }
}
