import { TestBed } from '@angular/core/testing';
import { instrumentById } from '@zelpit/core/fingering';
import { changesOfTune, readTune } from '@zelpit/core/tune';
import { signal } from '@angular/core';
import { LinePlayer } from '../lines/line-player.service';
import { TunePlayer } from '../../pages/tune/tune-player';
import type { OpenedTune } from '../../documents/tune/tunes.service';
import { fastest, slowest, SoundSettings } from './sound-settings.service';
import { Transport, type Playable } from './transport.service';

/** Keeps what would be played. */
class FakeTransport {
  readonly heard: Playable[] = [];
  readonly playing = signal<string | undefined>(undefined);
  play(what: Playable): Promise<void> {
    this.heard.push(what);
    this.playing.set(what.id);
    return Promise.resolve();
  }
}

const chanter = instrumentById('practice-chanter');

function opened(music: string): OpenedTune {
  const tune = readTune(chanter, `X:1\nT:t\nM:2/4\nL:1/8\nQ:1/4=80\nK:HP\n${music}\n`);
  return { instrument: chanter, articulation: 'slurred', path: new Map(), tune, changes: changesOfTune(chanter, tune) } as unknown as OpenedTune;
}

function players(): { tunes: TunePlayer; lines: LinePlayer; transport: FakeTransport; sound: SoundSettings } {
  const transport = new FakeTransport();
  TestBed.configureTestingModule({ providers: [TunePlayer, { provide: Transport, useValue: transport }] });
  return { tunes: TestBed.inject(TunePlayer), lines: TestBed.inject(LinePlayer), transport, sound: TestBed.inject(SoundSettings) };
}

const music = '|:e|A>c c>e|d>B d>f:|';

describe('TunePlayer', () => {
  it('plays the tune with its repeats, counted in so that the bar line falls on an accent', () => {
    const { tunes, transport } = players();
    tunes.playTune(opened(music), 1, false);
    const [heard] = transport.heard;
    expect(heard.notes).toHaveLength(18);
    expect(heard.settings).toMatchObject({ tempo: 80, beatsInBar: 2, firstBeat: 1.5, countInBeats: 3.5, isClickOn: false });
    expect(heard.settings.fault).toBeUndefined();
    expect(heard.times).toBe(1);
  });

  it('plays from the bar in hand, one bar alone, and repeats where that is on', () => {
    const { tunes, transport, sound } = players();
    sound.repeats.set(true);
    tunes.playTune(opened(music), 2, false);
    tunes.playBar(opened(music), 2);
    expect(transport.heard[0].notes[0].note).toBe('d');
    expect(transport.heard[1].notes.map((note) => note.note)).toEqual(['d', 'b', 'd', 'f']);
    expect(transport.heard.map((each) => each.times)).toEqual([0, 0]);
  });

  it('plays a change there and back, without count-in or click, faulty as the settings say', () => {
    const { tunes, transport, sound } = players();
    const tune = opened(music);
    const change = tune.changes.open.find((each) => each.id === 'c>e');
    if (change === undefined) throw new Error('The tune has no such change.');
    sound.hasClick.set(true);
    sound.fault.set('land-early');
    sound.faultMs.set(45);
    tunes.playChange(tune, change, true);
    const [heard] = transport.heard;
    expect(heard.notes.map((note) => note.note)).toEqual(['c', 'e', 'c', 'e']);
    expect(heard.settings).toMatchObject({ countInBeats: 0, isClickOn: false, fault: { kind: 'land-early', ms: 45 } });
  });

  it('starts anew at another tempo only while something plays', () => {
    const { tunes, transport, sound } = players();
    const tune = opened(music);
    tunes.playAgain();
    expect(transport.heard).toHaveLength(0);
    tunes.playBar(tune, 1);
    sound.slower();
    tunes.playAgain();
    expect(transport.heard.map((each) => each.settings.tempo)).toEqual([80, 76]);
    transport.playing.set(undefined);
    tunes.playAgain();
    expect(transport.heard).toHaveLength(2);
  });
});

describe('LinePlayer', () => {
  it('plays a line on the click at its tempo, a free one without click at a gentle pace', () => {
    const { lines, transport, sound } = players();
    lines.play('line', chanter, { home: 'c', other: 'e', tempo: 48 }, 8);
    lines.play('line', chanter, { home: 'c', other: 'e', tempo: null }, 1);
    expect(transport.heard[0]).toMatchObject({ times: 8, settings: { tempo: 48, isClickOn: true, countInBeats: 4 } });
    expect(transport.heard[1]).toMatchObject({ times: 1, settings: { tempo: 60, isClickOn: false } });
    expect(transport.heard[0].notes).toHaveLength(16);
    sound.percent.set(20);
    expect(lines.tempoOf({ home: 'c', other: 'e', tempo: 20 })).toBe(10);
  });
});

describe('SoundSettings', () => {
  it('keeps the speed between 20 and 150 %', () => {
    const { sound } = players();
    for (let step = 0; step < 60; step += 1) sound.slower();
    expect(sound.percent()).toBe(slowest);
    for (let step = 0; step < 60; step += 1) sound.faster();
    expect(sound.percent()).toBe(fastest);
    expect([slowest, fastest]).toEqual([20, 150]);
  });

  it('starts quiet', () => {
    expect(players().sound.level()).toBeLessThanOrEqual(0.5);
  });
});
