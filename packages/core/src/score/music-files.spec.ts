import * as fc from 'fast-check';
import { XMLParser } from 'fast-xml-parser';
import { parseMidi, writeMidi } from 'midi-file';
import { parse as parseWithMusicXmlIo, validate } from 'musicxml-io';
import { generatedAbc } from './generated-abc.spec-support';
import { heardVoice, playingOrder, readAbc, semitoneOf, writeAbc, type Score, type ScoreEvent, type Tempo } from '.';
import { assertPlainXml, midiOf, openMidi, readMusicXml, writeMusicXml, xmlFromParser, xmlParserSettings, type XmlNode } from '../music-files';

const xmlOf = (text: string): XmlNode => xmlFromParser(new XMLParser(xmlParserSettings).parse(text)) as XmlNode;
const head = 'X:1\nT:Try\nM:4/4\nL:1/8\nQ:1/4=90\nK:D\n';
const scoreOf = (music: string): Score => readAbc(head + music).score;
const tempo: Tempo = { beat: 1 / 4, perMinute: 90, words: '' };
const hasNotes = ({ voices }: Score): boolean => voices.some(({ events }) => events.some(({ pitches }) => pitches.length > 0));

/** Notes of the first voice as they are played, with grace notes and words; parts stand in the order of the page. */
function heardOf({ voices: [voice] }: Score): readonly string[] {
  const heard: string[] = [];
  let at = 0;
  for (const index of playingOrder(voice.bars)) {
    for (const event of voice.events.slice(voice.bars[index].first, voice.bars[index].end)) {
      const begun = event.pitches.filter(({ isTiedFromPrevious }) => !isTiedFromPrevious).map((pitch) => semitoneOf(pitch) + voice.soundsAt);
      const words = event.lyrics.map(({ text, joins }) => `${text}${joins ? '-' : ''}`).join('/');
      if (begun.length > 0) heard.push(`${Math.round(at * 10_080)} ${begun.join('+')} {${event.graceNotes.map(semitoneOf).join(' ')}} ${words}`);
      at += event.duration;
    }
  }
  return [...heard, at.toFixed(6)];
}

const barsOf = ({ voices: [voice] }: Score): readonly string[] =>
  voice.bars.map(({ number, meter, key, opensRepeat, closesRepeat, passes, marks, length }) =>
    [number, meter.text, key.fifths, opensRepeat, closesRepeat, passes, marks.map(({ mark }) => mark), length.toFixed(6)].join(' '),
  );

describe('MusicXML', () => {
  it('brings every tune back with its notes, bars, endings, words and grace notes, and on to ABC', () => {
    fc.assert(
      fc.property(generatedAbc, (abc) => {
        const { score } = readAbc(abc);
        fc.pre(hasNotes(score));
        const back = readMusicXml(xmlOf(writeMusicXml(score)));
        expect(heardOf(back)).toEqual(heardOf(score));
        expect(barsOf(back)).toEqual(barsOf(score));
        const again = readAbc(writeAbc(back));
        expect(again.faults).toEqual([]);
        expect(heardOf(again.score)).toEqual(heardOf(score));
      }),
      { numRuns: 50 },
    );
  });

  it('carries words, marks, chord symbols, signs, tempo and title', () => {
    const score = readAbc(
      'X:1\nT:One <&> two\nC:Nobody\nM:6/8\nL:1/8\nQ:"Slow" 3/8=60\nK:Ador\n!segno!.A!trill!B!fermata!c d2e|!fine!f2g (a3|"Am7"A3) "^up"B3!D.S.!|]\nw:one two three four-teen _ end\n',
    ).score;
    const back = readMusicXml(xmlOf(writeMusicXml(score)));
    expect(back.titles).toEqual(['One <&> two']);
    expect(back.key.name).toBe('A Dorian');
    expect(back.tempo).toEqual({ beat: 3 / 8, perMinute: 60, words: 'Slow' });
    expect(heardOf(back)).toEqual(heardOf(score));
    const [voice] = back.voices;
    expect(voice.events.map(({ decorations }) => decorations.join()).slice(0, 3)).toEqual(['staccato', 'trill', 'fermata']);
    expect(voice.events.map(({ chordSymbol }) => chordSymbol).filter((text) => text !== '')).toEqual(['Am7']);
    expect(voice.events.flatMap(({ annotations }) => annotations)).toEqual(['up']);
    expect(voice.events.reduce((sum, { slurStarts }) => sum + slurStarts, 0)).toBe(1);
  });

  it('writes both ends of every tie and slur, also of a length that no head has', () => {
    const xml = writeMusicXml(scoreOf('A5B3|(c4 d4)-|d8|e4 (f4|\n'));
    const count = (sign: string): number => xml.split(sign).length - 1;
    expect(count('<tied type="start"/>')).toBe(2);
    expect(count('<tied type="stop"/>')).toBe(2);
    expect(count('<slur type="start"')).toBe(1);
    expect(count('<slur type="stop"')).toBe(1);
  });

  it('is read without a complaint by a strict reader, which counts the same notes', () => {
    const whole = fc.constantFrom('A2B2c2d2', '(3ABc d2 e4', '{g}A4 {gcd}c4', 'A8', 'A5B3', 'z4 A4', '[CE]4 G4', 'A>B c>d e4', '(ABcd) e4');
    fc.assert(
      fc.property(fc.array(whole, { minLength: 1, maxLength: 6 }), (bars) => {
        const score = scoreOf(`|:${bars.join('|')}:|\nw:one two three\n`);
        const read = parseWithMusicXmlIo(writeMusicXml(score));
        expect(validate(read).errors).toEqual([]);
        const notes = read.parts.flatMap(({ measures }) =>
          measures.flatMap(({ entries }) => entries.flatMap((entry) => (entry.type === 'note' ? [entry] : []))),
        );
        const { events } = score.voices[0];
        const sum = (count: (event: ScoreEvent) => number): number => events.reduce((all, event) => all + count(event), 0);
        expect(notes.filter(({ grace }) => grace !== undefined)).toHaveLength(sum(({ graceNotes }) => graceNotes.length));
        const ties = notes.flatMap((note) => note.ties ?? (note.tie === undefined ? [] : [note.tie]));
        expect(ties.filter(({ type }) => type === 'start').length).toBe(ties.filter(({ type }) => type === 'stop').length);
        const tuplets = notes.flatMap(({ notations = [] }) => notations.flatMap((each) => (each.type === 'tuplet' ? [each.tupletType] : [])));
        expect(tuplets.filter((type) => type === 'start')).toHaveLength(sum(({ tuplets: all }) => all.filter(({ isFirst }) => isFirst).length));
        expect(notes.filter(({ lyrics = [] }) => lyrics.length > 0)).toHaveLength(sum(({ lyrics }) => (lyrics.length > 0 ? 1 : 0)));
      }),
      { numRuns: 60 },
    );
  });

  it.each([
    ['<html><body/></html>', 'This XML file is not a MusicXML score.'],
    ['<score-timewise/>', 'ordered by bars'],
    ['<score-partwise/>', 'has no notes'],
    ['<score-partwise><part id="P1"><measure><note><pitch><step>H</step></pitch></note></measure></part></score-partwise>', 'without a height'],
    ['<score-partwise><part id="P1"><measure><note><rest/><duration>x</duration></note></measure></part></score-partwise>', 'has no notes'],
  ])('refuses %s with a sentence', (text, sentence) => {
    expect(() => readMusicXml(xmlOf(text))).toThrow(sentence);
  });

  it('refuses entities and nesting before anything is read', () => {
    expect(() => assertPlainXml('<!DOCTYPE a [<!ENTITY x "y">]><a/>')).toThrow('entities');
    expect(() => assertPlainXml('<a>'.repeat(100_000))).toThrow('levels deep');
    expect(() => assertPlainXml(writeMusicXml(scoreOf('A8|')))).not.toThrow();
  });

  it('reads tuplets without brackets, voices of a part, repeats that are played three times, whole-bar rests', () => {
    const note = (step: string, duration: number, more = ''): string =>
      `<note><pitch><step>${step}</step><octave>4</octave></pitch><duration>${duration}</duration><voice>1</voice>${more}</note>`;
    const third = '<time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification>';
    const xml = `<score-partwise><part-list><score-part id="P1"><part-name>Flute</part-name></score-part></part-list><part id="P1">
      <measure number="1"><attributes><divisions>6</divisions><time><beats>2</beats><beat-type>4</beat-type></time></attributes>
        ${note('C', 2, third)}${note('D', 2, third)}${note('E', 2, third)}${note('G', 6)}
        <backup><duration>12</duration></backup><note><pitch><step>C</step><octave>3</octave></pitch><duration>12</duration><voice>2</voice></note></measure>
      <measure number="2"><note><rest measure="yes"/><duration>12</duration><voice>1</voice></note>
        <barline location="right"><repeat direction="backward" times="3"/></barline></measure></part></score-partwise>`;
    const score = readMusicXml(xmlOf(xml));
    expect(score.voices.map(({ id, name }) => `${id} ${name}`)).toEqual(['P1 Flute', 'P1-1.2 Flute 2']);
    const [voice] = score.voices;
    expect(voice.events.slice(0, 3).map(({ tuplets: [tuplet] }) => [tuplet.isFirst, tuplet.isLast])).toEqual([
      [true, false],
      [false, false],
      [false, true],
    ]);
    expect(voice.bars[0].meter.text).toBe('2/4');
  });
});

describe('MIDI', () => {
  const bytesOf = (score: Score): Uint8Array => Uint8Array.from(writeMidi(midiOf(score, score.voices[0], tempo) as never));
  const opened = (score: Score) => openMidi(parseMidi(bytesOf(score)) as never);
  const listed = (score: Score): readonly string[] =>
    heardVoice(score, score.voices[0], 0.01).notes.map(({ start, semitone, isGrace }) => `${isGrace ? 'grace' : start.toFixed(2)} ${semitone}`);

  it('plays what is heard: repeats, ties, grace notes before their note and in its time', () => {
    const score = scoreOf('|:{g}A4 B4-|B4 c4:|');
    const { tracks, header } = parseMidi(bytesOf(score));
    let ticks = 0;
    const ons = tracks[1].flatMap((event) => {
      ticks += event.deltaTime;
      return event.type === 'noteOn' ? [`${((ticks * 2) / (header.ticksPerBeat ?? 1)).toFixed(2)} ${event.noteNumber}`] : [];
    });
    expect(ons).toEqual(['0.00 79', '0.15 69', '4.00 71', '12.00 73', '16.00 79', '16.15 69', '20.00 71', '28.00 73']);
  });

  it('comes back as the same tune: lengths, triplets, dots, ties, grace notes', () => {
    const bar = fc.constantFrom('abcd efga', 'c2e2 g2e2', '(3efg e2 d4', 'A>B c<d e4', 'c4 z2 d2', '{g}A2 {gcd}c2 e4', 'c6 d2', 'e4 d4');
    fc.assert(
      fc.property(fc.array(bar, { minLength: 2, maxLength: 6 }), (bars) => {
        const score = scoreOf(`${bars.join('|')}|]\n`);
        const { choices, score: written } = opened(score);
        const back = written(choices);
        expect(listed(back)).toEqual(listed(score));
        expect(readAbc(writeAbc(back)).faults).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it('finds the melody among the lines and names them all; another line can be chosen', () => {
    const melody = midiOf(scoreOf('abcd efga|c8|'), scoreOf('abcd efga|c8|').voices[0], tempo);
    const bass = midiOf(scoreOf('[A,,E,]8|[A,,E,]8|'), scoreOf('[A,,E,]8|[A,,E,]8|').voices[0], tempo);
    const file = { header: { format: 1 as const, numTracks: 3, ticksPerBeat: 960 }, tracks: [melody.tracks[0], bass.tracks[1], melody.tracks[1]] };
    const { lines, choices, score } = openMidi(file);
    expect(lines).toHaveLength(2);
    expect(choices.line).toBe(1);
    expect(score({ ...choices, line: 0 }).voices[0].events.length).toBeLessThan(score(choices).voices[0].events.length);
  });

  it('keeps short notes as notes where no grace notes are wanted', () => {
    const { choices, score } = opened(scoreOf('{g}A4 B4|c8|'));
    expect(score(choices).voices[0].events[0].graceNotes).toHaveLength(1);
    expect(score({ ...choices, graceMs: 0, grid: 8 }).voices[0].events.every(({ graceNotes }) => graceNotes.length === 0)).toBe(true);
  });

  it('refuses what has no notes, or too many, and survives a file without tempo or with notes that never end', () => {
    const header = { format: 0 as const, numTracks: 1, ticksPerBeat: 480 };
    expect(() => openMidi({ header, tracks: [[]] })).toThrow('This MIDI file has no notes.');
    const on = (deltaTime: number, noteNumber: number) => ({ deltaTime, type: 'noteOn', channel: 0, noteNumber, velocity: 64 });
    expect(() => openMidi({ header, tracks: [[on(0, 60)]] })).toThrow('This MIDI file has no notes.');
    expect(() => openMidi({ header, tracks: [Array.from({ length: 100_001 }, () => on(0, 60))] })).toThrow('more than 100000 notes');
    const off = { deltaTime: 480, type: 'noteOff', channel: 0, noteNumber: 60, velocity: 0 };
    const { choices, score } = openMidi({ header, tracks: [[on(0, 60), off]] });
    expect(score(choices).tempo?.perMinute).toBe(120);
    const crowd = Array.from({ length: 10_000 }, (_, index) => on(0, index % 128));
    const offs = Array.from({ length: 10_000 }, (_, index) => ({ ...off, deltaTime: 0, noteNumber: index % 128 }));
    expect(() => openMidi({ header, tracks: [[...crowd, { ...offs[0], deltaTime: 480 }, ...offs]] }).choices).not.toThrow();
  });
});
