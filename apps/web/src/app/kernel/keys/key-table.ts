/** What a key means wherever it stands. A reserved key has no other meaning on any page. */
export type KeyMeaning =
  | 'play'
  | 'clean'
  | 'faulty'
  | 'slow'
  | 'line'
  | 'paper'
  | 'under the notes'
  | 'move'
  | 'strike out'
  | 'all pages'
  | 'keys'
  | 'next'
  | 'before'
  | 'tempo'
  | 'choose'
  | 'main button'
  | 'leave';

/** Keys that mean one thing everywhere, as `KeyboardEvent.key` gives them. */
export const reservedKeys: Readonly<Record<string, KeyMeaning>> = {
  ' ': 'play',
  c: 'clean',
  f: 'faulty',
  s: 'slow',
  l: 'line',
  p: 'paper',
  u: 'under the notes',
  j: 'move',
  k: 'move',
  x: 'strike out',
  g: 'all pages',
  '?': 'keys',
  PageDown: 'next',
  PageUp: 'before',
  '-': 'tempo',
  '+': 'tempo',
  '=': 'tempo',
  ...Object.fromEntries([...'1234567890'].map((digit): [string, KeyMeaning] => [digit, 'choose'])),
  Enter: 'main button',
  Escape: 'leave',
};

export interface KeyEntry {
  /** As `KeyboardEvent.key` gives it, letters small; several for a key that pedals send too. */
  readonly keys: readonly string[];
  /** As printed on the key cap. */
  readonly cap: string;
  /** What it does, in the list of keys. */
  readonly label: string;
  /** Required for a reserved key: what it means everywhere. */
  readonly means?: KeyMeaning;
  /** True for a key that counts with Ctrl (or Command), also while somebody types; `shift` with Shift too. */
  readonly ctrl?: true;
  readonly shift?: true;
}

const space = { keys: [' '], cap: 'Space', means: 'play' } as const;
const down = { keys: ['ArrowDown'], cap: '↓' } as const;
const up = { keys: ['ArrowUp'], cap: '↑' } as const;
const right = { keys: ['ArrowRight'], cap: '→' } as const;
const left = { keys: ['ArrowLeft'], cap: '←' } as const;
const pageDown = { keys: ['PageDown'], cap: 'Page Down', means: 'next' } as const;
const pageUp = { keys: ['PageUp'], cap: 'Page Up', means: 'before' } as const;
const slower = { keys: ['-'], cap: '-', label: 'Slower', means: 'tempo' } as const;
const faster = { keys: ['+', '='], cap: '+', label: 'Faster', means: 'tempo' } as const;

/** Every key of the application, by page or by what a page is made of. */
export const keyTable = {
  everywhere: {
    keys: { keys: ['?'], cap: '?', label: 'Show this list of keys', means: 'keys' },
    pages: { keys: ['g'], cap: 'G', label: 'Go to all pages; then 1 to 5 for a group', means: 'all pages' },
  },
  undo: {
    undo: { keys: ['z'], ctrl: true, cap: 'Ctrl Z', label: 'Undo' },
    redo: { keys: ['z'], ctrl: true, shift: true, cap: 'Ctrl Shift Z', label: 'Redo' },
    redoToo: { keys: ['y'], ctrl: true, cap: 'Ctrl Y', label: 'Redo' },
  },
  pages: {
    first: { keys: ['1'], cap: '1', label: 'Today', means: 'choose' },
    second: { keys: ['2'], cap: '2', label: 'Tunes', means: 'choose' },
    third: { keys: ['3'], cap: '3', label: 'Fingers', means: 'choose' },
    fourth: { keys: ['4'], cap: '4', label: 'Students', means: 'choose' },
    fifth: { keys: ['5'], cap: '5', label: 'Studio', means: 'choose' },
  },
  tune: {
    play: { ...space, label: 'Play from here, or stop' },
    bar: { keys: ['b'], cap: 'B', label: 'Play this bar' },
    clean: { keys: ['c'], cap: 'C', label: 'Hear the change clean', means: 'clean' },
    faulty: { keys: ['f'], cap: 'F', label: 'Hear the change with its fault', means: 'faulty' },
    withFaults: { keys: ['v'], cap: 'V', label: 'Play the tune from here with the fault in every change' },
    repeat: { keys: ['r'], cap: 'R', label: 'Repeat on or off' },
    slower,
    faster,
    nextChange: { ...down, label: 'Next change in the list' },
    changeBefore: { ...up, label: 'Previous change' },
    nextBar: { ...right, label: 'Next bar' },
    barBefore: { ...left, label: 'Previous bar' },
    nextLine: { ...pageDown, label: 'Next line of music' },
    lineBefore: { ...pageUp, label: 'Previous line' },
    tick: { keys: ['t'], cap: 'T', label: 'Tick or untick the change' },
    lines: { keys: ['l'], cap: 'L', label: 'Make lines from the ticked changes, or from this one', means: 'line' },
    tenMinutes: { keys: ['m'], cap: 'M', label: 'Make the ten-minute sheet' },
    letters: { keys: ['u'], cap: 'U', label: 'Something else under the notes: letters, the count, words', means: 'under the notes' },
    whole: { keys: ['w'], cap: 'W', label: 'Whole tune or one line' },
    fold: { keys: ['Enter'], cap: 'Enter', label: 'Open or fold the movements of this bar, where they have no room', means: 'main button' },
    apart: { keys: ['o'], cap: 'O', label: 'Take this bar apart' },
    edit: { keys: ['e'], cap: 'E', label: 'Edit the text' },
    arrange: { keys: ['a'], cap: 'A', label: 'Arrange it for this student' },
    along: { keys: ['y'], cap: 'Y', label: 'Play along with it' },
    take: { keys: ['i'], cap: 'I', label: 'Listen to a take of it' },
    home: { keys: ['h'], cap: 'H', label: 'Put the whole tune on the student’s sheet' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Back from the whole list to the music', means: 'leave' },
  },
  chunk: {
    play: { ...space, label: 'Play the chosen row, or stop' },
    main: { keys: ['Enter'], cap: 'Enter', label: 'Put it on the student’s sheet', means: 'main button' },
    rows: { keys: [...'1234'], cap: '1 … 4', label: 'Bare notes, one grace note, in full, with the count', means: 'choose' },
    next: { keys: ['ArrowRight', 'ArrowDown'], cap: '→', label: 'Next change' },
    before: { keys: ['ArrowLeft', 'ArrowUp'], cap: '←', label: 'Previous change' },
    nextStretch: { keys: ['PageDown'], cap: 'Page Down', label: 'Next bar, or the other half', means: 'next' },
    stretchBefore: { keys: ['PageUp'], cap: 'Page Up', label: 'Previous bar', means: 'before' },
    clean: { keys: ['c'], cap: 'C', label: 'Hear this change clean', means: 'clean' },
    faulty: { keys: ['f'], cap: 'F', label: 'Hear this change with its fault', means: 'faulty' },
    slow: { keys: ['s'], cap: 'S', label: 'Half as fast, or at speed', means: 'slow' },
    slower,
    faster,
    join: { keys: ['n'], cap: 'N', label: 'Join it to the next bar' },
    begin: { keys: ['b'], cap: 'B', label: 'The stretch begins at this change' },
    end: { keys: ['d'], cap: 'D', label: 'The stretch ends at this change' },
    tap: { keys: ['t'], cap: 'T', label: 'Tap along while it plays' },
    read: { keys: ['v'], cap: 'V', label: 'Read out what is said of it, or stop' },
    edit: { keys: ['e'], cap: 'E', label: 'Edit the script' },
    paper: { keys: ['p'], cap: 'P', label: 'On paper', means: 'paper' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Back to the tune', means: 'leave' },
  },
  newNotes: {
    play: { ...space, label: 'Listen, or stop' },
    press: { keys: ['Enter'], cap: 'Enter', label: 'There: the new note sounds', means: 'main button' },
    without: { keys: ['o'], cap: 'O', label: 'Play it without the new notes' },
    show: { keys: ['h'], cap: 'H', label: 'Show or hide the score' },
    slower,
    faster,
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Back to the tune', means: 'leave' },
  },
  along: {
    play: { ...space, label: 'Start with the count-in, stop, or go on after a pause' },
    main: { keys: ['Enter'], cap: 'Enter', label: 'Start, stop, or go on', means: 'main button' },
    slower: { ...slower, keys: ['-', 'ArrowDown'] },
    faster: { ...faster, keys: ['+', '=', 'ArrowUp'] },
    next: { keys: ['PageDown', 'ArrowRight'], cap: 'Page Down', label: 'Next part or phrase', means: 'next' },
    before: { keys: ['PageUp', 'ArrowLeft'], cap: 'Page Up', label: 'Part or phrase before', means: 'before' },
    repeat: { keys: ['r'], cap: 'R', label: 'Again and again, or once' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Back to the tune', means: 'leave' },
  },
  nextTunes: {
    play: { ...space, label: 'Hear the first bars of the first tune, or stop' },
    next: { ...right, label: 'Next note' },
    before: { ...left, label: 'Note before' },
    tick: { keys: ['t'], cap: 'T', label: 'Tick the note as known, or not' },
    hear: { keys: ['h'], cap: 'H', label: 'Hear the note after one that is known' },
    slower,
    faster,
  },
  arrange: {
    play: { ...space, label: 'Play it as arranged, or stop' },
    before: { keys: ['b'], cap: 'B', label: 'Play it as written' },
    next: { keys: ['ArrowRight', 'PageDown'], cap: '→', label: 'Next bars', means: 'next' },
    back: { keys: ['ArrowLeft', 'PageUp'], cap: '←', label: 'Bars before', means: 'before' },
    up: { keys: ['ArrowUp'], cap: '↑', label: 'Key above' },
    down: { keys: ['ArrowDown'], cap: '↓', label: 'Key below' },
    ornaments: { keys: ['o'], cap: 'O', label: 'Ornaments: as written, plain, a few, session' },
    simplify: { keys: ['i'], cap: 'I', label: 'Simplify for this student, or in full again' },
    main: { keys: ['Enter'], cap: 'Enter', label: 'Try what is proposed, or keep it for this student', means: 'main button' },
    slower,
    faster,
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Back to the tune', means: 'leave' },
  },
  tuneMovements: {
    write: { keys: ['w'], cap: 'W', label: 'Write the first wrong group right' },
  },
  line: {
    play: { ...space, label: 'Play the chosen line, or stop' },
    faulty: { keys: ['f'], cap: 'F', label: 'Hear the line with its fault', means: 'faulty' },
    slower,
    faster,
  },
  lines: {
    next: { keys: ['ArrowDown', 'PageDown'], cap: '↓', label: 'Next line', means: 'next' },
    before: { keys: ['ArrowUp', 'PageUp'], cap: '↑', label: 'Previous line', means: 'before' },
  },
  newSheet: {
    make: { keys: ['n'], cap: 'N', label: 'Put these lines on a new sheet' },
  },
  sheet: {
    next: { keys: ['ArrowDown', 'PageDown'], cap: '↓', label: 'Next line', means: 'next' },
    before: { keys: ['ArrowUp', 'PageUp'], cap: '↑', label: 'Previous line', means: 'before' },
    moveDown: { keys: ['j'], cap: 'J', label: 'Move the chosen line down', means: 'move' },
    moveUp: { keys: ['k'], cap: 'K', label: 'Move the chosen line up', means: 'move' },
    paper: { keys: ['p'], cap: 'P', label: 'On paper', means: 'paper' },
  },
  sheetPaper: {
    save: { keys: ['d'], cap: 'D', label: 'Save as PDF' },
    edit: { keys: ['e'], cap: 'E', label: 'Back to editing' },
  },
  handout: {
    save: { keys: ['d'], cap: 'D', label: 'Save the page as PDF' },
  },
  runner: {
    play: { keys: [' '], cap: 'Space', label: 'Start with the count-in, or stop', means: 'play' },
    main: { keys: ['Enter'], cap: 'Enter', label: 'Start with the count-in, or stop', means: 'main button' },
    slower: { ...slower, keys: ['-', 'ArrowDown'] },
    faster: { ...faster, keys: ['+', '=', 'ArrowUp'] },
    next: { keys: ['PageDown', 'ArrowRight'], cap: 'Page Down', label: 'Next line of the sheet', means: 'next' },
    before: { keys: ['PageUp', 'ArrowLeft'], cap: 'Page Up', label: 'Previous line', means: 'before' },
    row: { keys: [...'1234'], cap: '1 … 4', label: 'Step of a piece; after playing: 1 clean, 2 nearly, 3 not yet', means: 'choose' },
    ladder: { keys: ['t'], cap: 'T', label: 'Tempo ladder: faster and faster until it slips' },
    listening: { keys: ['e'], cap: 'E', label: 'Tempo ladder that listens, and ends at the first slip by itself' },
    half: { keys: ['h'], cap: 'H', label: 'All of it, its first half, its second half' },
    loop: { keys: ['r'], cap: 'R', label: 'Again and again, or as often as it stands' },
    wait: { keys: ['w'], cap: 'W', label: 'Wait after each time, until you go on' },
    take: { keys: ['i'], cap: 'I', label: 'Listen to a take of it' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Stop, the ladder too', means: 'leave' },
  },
  today: {
    main: { keys: ['Enter'], cap: 'Enter', label: 'Begin the chosen lesson, or go on with it', means: 'main button' },
    next: { keys: ['ArrowRight', 'PageDown'], cap: '→', label: 'Next lesson of the day', means: 'next' },
    before: { keys: ['ArrowLeft', 'PageUp'], cap: '←', label: 'Lesson before', means: 'before' },
    set: { keys: ['n'], cap: 'N', label: 'Set a lesson' },
  },
  lesson: {
    play: { ...space, label: 'Play what is practised now, or stop' },
    judge: { keys: [...'123456'], cap: '1 … 6', label: 'Clean, nearly, not yet; what was heard', means: 'choose' },
    next: { keys: ['PageDown', 'ArrowDown'], cap: 'Page Down', label: 'Next of the plan', means: 'next' },
    before: { keys: ['PageUp', 'ArrowUp'], cap: 'Page Up', label: 'The one before', means: 'before' },
    slower,
    faster,
    onward: { keys: ['n'], cap: 'N', label: 'Next of the plan, where a pedal judges' },
    word: { keys: ['w'], cap: 'W', label: 'Write a word about it' },
    say: { keys: ['v'], cap: 'V', label: 'Say a word about it; again ends and keeps it' },
    back: { keys: ['Backspace'], cap: 'Backspace', label: 'Take the last try back' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Back to the day; the lesson goes on', means: 'leave' },
  },
  review: {
    play: { ...space, label: 'Hear the chosen item, or stop' },
    next: { keys: ['PageDown', 'ArrowDown'], cap: '↓', label: 'Next item', means: 'next' },
    before: { keys: ['PageUp', 'ArrowUp'], cap: '↑', label: 'Item before', means: 'before' },
    moveDown: { keys: ['j'], cap: 'J', label: 'Move the chosen item down', means: 'move' },
    moveUp: { keys: ['k'], cap: 'K', label: 'Move the chosen item up', means: 'move' },
    strike: { keys: ['x'], cap: 'X', label: 'Strike the chosen item out', means: 'strike out' },
    add: { keys: ['a'], cap: 'A', label: 'Add an item' },
    open: { keys: ['e'], cap: 'E', label: 'Change the chosen item, or fold it' },
    paper: { keys: ['p'], cap: 'P', label: 'On paper', means: 'paper' },
    send: { keys: ['Enter'], ctrl: true, cap: 'Ctrl Enter', label: 'Send it', means: 'main button' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Fold what is open', means: 'leave' },
  },
  logbook: {
    table: { keys: ['t'], cap: 'T', label: 'As a table, or as ribbons' },
  },
  chart: {
    play: { ...space, label: 'Hear the chosen note' },
    hear: { keys: ['h'], cap: 'H', label: 'Hear the fingers you set' },
    next: { ...right, label: 'Next note' },
    before: { ...left, label: 'Previous note' },
    hole: { keys: [...'1234567890'], cap: '1 … 0', label: 'Holes from the top, covered or open', means: 'choose' },
  },
  changes: {
    play: { ...space, label: 'Hear the change with the fingers as placed' },
    clean: { keys: ['c'], cap: 'C', label: 'Hear it clean: all fingers at the same instant', means: 'clean' },
    faulty: { keys: ['f'], cap: 'F', label: 'Hear it with the landing fingers early', means: 'faulty' },
    open: { keys: ['o'], cap: 'O', label: 'Hear it with the lifting fingers early' },
    outOfOrder: { keys: ['w'], cap: 'W', label: 'Hear it with the fingers out of order' },
    slow: { keys: ['s'], cap: 'S', label: 'Slow motion on or off', means: 'slow' },
    ear: { keys: ['t'], cap: 'T', label: 'Ear test of this change' },
    onKeys: { keys: ['y'], cap: 'Y', label: 'Play it on keys' },
  },
  ear: {
    play: { ...space, label: 'Start, or hear both again' },
    first: { keys: ['1'], cap: '1', label: 'The first had the fault', means: 'choose' },
    second: { keys: ['2'], cap: '2', label: 'The second had the fault', means: 'choose' },
    again: { keys: ['r'], cap: 'R', label: 'Hear both again' },
  },
  take: {
    play: { ...space, label: 'Hear the chosen place, or stop' },
    slow: { keys: ['s'], cap: 'S', label: 'Hear it twenty times as slow', means: 'slow' },
    clean: { keys: ['c'], cap: 'C', label: 'Hear it beside a clean one', means: 'clean' },
    demonstration: { keys: ['d'], cap: 'D', label: 'Hear it beside the teacher’s demonstration' },
    record: { keys: ['r'], cap: 'R', label: 'Record, or end the recording' },
    midi: { keys: ['m'], cap: 'M', label: 'Take it from a MIDI instrument' },
    computed: { keys: ['a'], cap: 'A', label: 'Let a computed learner play it' },
    click: { keys: ['t'], cap: 'T', label: 'To a click, or without one' },
    slower: { ...slower, label: 'Click slower' },
    faster: { ...faster, label: 'Click faster' },
    isClean: { keys: ['1'], cap: '1', label: 'It was clean', means: 'choose' },
    isFaulty: { keys: ['3'], cap: '3', label: 'It was faulty', means: 'choose' },
    plan: { keys: ['n'], cap: 'N', label: 'Onto the student’s sheet' },
    next: { keys: ['ArrowDown', 'PageDown'], cap: '↓', label: 'Next place', means: 'next' },
    before: { keys: ['ArrowUp', 'PageUp'], cap: '↑', label: 'Place before', means: 'before' },
    leave: { keys: ['Escape'], cap: 'Esc', label: 'Stop listening', means: 'leave' },
  },
  held: {
    play: { ...space, label: 'Listen, or stop' },
  },
  hunt: {
    play: { ...space, label: 'Play or stop' },
    answers: { keys: ['a'], cap: 'A', label: 'Show the answers' },
    next: { keys: ['n'], cap: 'N', label: 'Another round' },
  },
  movements: {
    play: { ...space, label: 'Hear the movement' },
    slow: { keys: ['s'], cap: 'S', label: 'Change the speed: full, 40 %, slow motion', means: 'slow' },
    table: { keys: ['1'], cap: '1', label: 'From every note', means: 'choose' },
    inTime: { keys: ['2'], cap: '2', label: 'This one in time', means: 'choose' },
    practise: { keys: ['3'], cap: '3', label: 'Practise it', means: 'choose' },
  },
} as const satisfies Readonly<Record<string, Readonly<Record<string, KeyEntry>>>>;

export type KeyPage = keyof typeof keyTable;

/** What works at once on a page: its own keys, those of its parts, and those of everywhere. */
export const keysTogether: Readonly<Record<string, readonly KeyPage[]>> = {
  pages: ['everywhere', 'pages'],
  tune: ['everywhere', 'undo', 'tune'],
  'new notes of a tune': ['everywhere', 'newNotes'],
  'playing along': ['everywhere', 'along'],
  'next tunes': ['everywhere', 'nextTunes'],
  logbook: ['everywhere', 'logbook'],
  'a review': ['everywhere', 'undo', 'review'],
  today: ['everywhere', 'today'],
  'a lesson': ['everywhere', 'lesson'],
  'arranging a tune': ['everywhere', 'arrange'],
  'a bar of a tune': ['everywhere', 'chunk'],
  'movements of a tune': ['everywhere', 'undo', 'tuneMovements'],
  'lines of a tune': ['everywhere', 'line', 'lines', 'newSheet'],
  'lines of a set': ['everywhere', 'line'],
  sheet: ['everywhere', 'undo', 'line', 'sheet'],
  'sheet on paper': ['everywhere', 'sheetPaper'],
  handout: ['everywhere', 'handout'],
  runner: ['everywhere', 'runner'],
  chart: ['everywhere', 'chart'],
  changes: ['everywhere', 'changes'],
  'ear test': ['everywhere', 'ear'],
  'a take': ['everywhere', 'take'],
  'held notes': ['everywhere', 'held'],
  'find the faults': ['everywhere', 'hunt'],
  movements: ['everywhere', 'movements'],
};
