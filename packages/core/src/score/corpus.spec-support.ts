import { playingOrder, semitoneOf, type Score, type ScoreEvent } from '.';

/** A fragment of music with what is heard of it: its feature, its text, and the notes as they are played. */
export type Fragment = readonly [feature: string, text: string, heard: string];

/**
 * Fragments with one feature each. A text without a line `K:` stands under M:4/4, L:1/8, K:C. What is heard: names of notes with their octave (C4 is middle C), `*` and a
 * length in eighths where it is not one, `z` for a rest, `+` between the notes of a chord, grace notes in braces, a bar line after each bar as it is played. Worked out by
 * hand.
 */
export const corpus: readonly Fragment[] = [
  // Letters, octaves, lengths
  ['letters', 'CDEF GABc|', 'C4 D4 E4 F4 G4 A4 B4 C5'],
  ['high letters', "cdef gabc'|", 'C5 D5 E5 F5 G5 A5 B5 C6'],
  ['commas', 'C,D,E,F, G,A,B,C|', 'C3 D3 E3 F3 G3 A3 B3 C4'],
  ['two commas, two apostrophes', "C,,4 c''4|", 'C2*4 C7*4'],
  ['comma after a small letter', 'c,8|', 'C4*8'],
  ['apostrophe after a capital', "C'8|", 'C5*8'],
  ['whole lengths', 'C2D3E3|', 'C4*2 D4*3 E4*3'],
  ['/ halves', 'C/D/ E3 F4|', 'C4*.5 D4*.5 E4*3 F4*4'],
  ['/2 halves', 'C/2D/2E3 F4|', 'C4*.5 D4*.5 E4*3 F4*4'],
  ['// quarters', 'C//D//E/F7|', 'C4*.25 D4*.25 E4*.5 F4*7'],
  ['/4 quarters', 'C/4D/4E/F7|', 'C4*.25 D4*.25 E4*.5 F4*7'],
  ['3/2', 'C3/2D/E6|', 'C4*1.5 D4*.5 E4*6'],
  ['3/ is 3/2', 'C3/D/E6|', 'C4*1.5 D4*.5 E4*6'],
  ['7/4', 'C7/4D/4 E6|', 'C4*1.75 D4*.25 E4*6'],
  ['a third of a unit', 'D/3D/3D/3 E7|', 'D4*.333 D4*.333 D4*.333 E4*7'],
  ['a length over the bar', 'G16|', 'G4*16'],
  ['a length of five', 'M:6/8\nL:1/8\nK:C\nA5B|', 'A4*5 B4'],
  ['a length of seven', 'C7D|', 'C4*7 D4'],
  // Rests
  ['z rests', 'Cz2D z4|', 'C4 z*2 D4 z*4'],
  ['x rests are not shown', 'Cx2D x4|', 'C4 z*2 D4 z*4'],
  ['Z is a bar', 'Z|C8|', 'z*8 | C4*8'],
  ['Z4 in 4/4', 'Z4|C8|', 'z*8 | z*8 | z*8 | z*8 | C4*8'],
  ['Z4 in 3/4', 'M:3/4\nL:1/8\nK:C\nZ4|C6|', 'z*6 | z*6 | z*6 | z*6 | C4*6'],
  ['Z2 in 6/8', 'M:6/8\nL:1/8\nK:C\nZ2|C6|', 'z*6 | z*6 | C4*6'],
  ['Z2 in M:(2+3)/8', 'M:(2+3)/8\nL:1/8\nK:C\nZ2|C5|', 'z*5 | z*5 | C4*5'],
  ['Z2 in M:2', 'M:2\nL:1/8\nK:C\nZ2|C4|', 'z*4 | z*4 | C4*4'],
  ['Z2 in M:none', 'M:none\nL:1/8\nK:C\nZ2|C4|', 'z*8 | z*8 | C4*4'],
  ['Z after a change of meter', 'C8|[M:3/4]Z2|C6|', 'C4*8 | z*6 | z*6 | C4*6'],
  ['X is Z unseen', 'X2|C8|', 'z*8 | z*8 | C4*8'],
  ['y takes no time', 'GyA y2 BcdefG|', 'G4 A4 B4 C5 D5 E5 F5 G4'],
  // Broken rhythm
  ['>', 'A>B A4 G2|', 'A4*1.5 B4*.5 A4*4 G4*2'],
  ['<', 'A<B A4 G2|', 'A4*.5 B4*1.5 A4*4 G4*2'],
  ['>>', 'A>>B A4 G2|', 'A4*1.75 B4*.25 A4*4 G4*2'],
  ['<<', 'A<<B A4 G2|', 'A4*.25 B4*1.75 A4*4 G4*2'],
  ['>>>', 'A>>>B A4 G2|', 'A4*1.875 B4*.125 A4*4 G4*2'],
  ['> on long notes', 'A2>B2 A4|', 'A4*3 B4 A4*4'],
  ['> with a blank', 'A > B A4 G2|', 'A4*1.5 B4*.5 A4*4 G4*2'],
  ['> before a grace note', 'A>{g}B A4 G2|', 'A4*1.5 {G5}B4*.5 A4*4 G4*2'],
  ['grace note before >', 'A{g}>B A4 G2|', 'A4*1.5 {G5}B4*.5 A4*4 G4*2'],
  ['> before a triplet', 'A>(3BcB G4|', 'A4*1.5 B4*.333 C5*.667 B4*.667 G4*4'],
  ['> after a triplet', '(3ABc>d G4|', 'A4*.667 B4*.667 C5 D5*.5 G4*4'],
  ['> with a rest', 'A>z B>c G4|', 'A4*1.5 z*.5 B4*1.5 C5*.5 G4*4'],
  ['> with chords', '[AC]>[BD] G6|', 'A4+C4*1.5 B4+D4*.5 G4*6'],
  ['> with words between', 'A>"^slow"B G6|', 'A4*1.5 B4*.5 G4*6'],
  ['chain of >', 'A>B>c G5|', 'A4*1.5 B4*.75 C5*.5 G4*5'],
  // Tuplets
  ['(3', '(3ABc G6|', 'A4*.667 B4*.667 C5*.667 G4*6'],
  ['(2 in 6/8', 'M:6/8\nL:1/8\nK:C\n(2AB G3|', 'A4*1.5 B4*1.5 G4*3'],
  ['(4 in 6/8', 'M:6/8\nL:1/8\nK:C\n(4ABcd G3|', 'A4*.75 B4*.75 C5*.75 D5*.75 G4*3'],
  ['(5 in 4/4', '(5ABcde G6|', 'A4*.4 B4*.4 C5*.4 D5*.4 E5*.4 G4*6'],
  ['(5 in 6/8', 'M:6/8\nL:1/8\nK:C\n(5ABcde G3|', 'A4*.6 B4*.6 C5*.6 D5*.6 E5*.6 G4*3'],
  ['(5 in 3/4 is not compound', 'M:3/4\nL:1/8\nK:C\n(5ABcde G4|', 'A4*.4 B4*.4 C5*.4 D5*.4 E5*.4 G4*4'],
  ['(6', '(6ABcdef G6|', 'A4*.333 B4*.333 C5*.333 D5*.333 E5*.333 F5*.333 G4*6'],
  ['(7 in 4/4', '(7ABcdefg G6|', 'A4*.286 B4*.286 C5*.286 D5*.286 E5*.286 F5*.286 G5*.286 G4*6'],
  ['(7 in 9/8', 'M:9/8\nL:1/8\nK:C\n(7ABcdefg G6|', 'A4*.429 B4*.429 C5*.429 D5*.429 E5*.429 F5*.429 G5*.429 G4*6'],
  ['(8', '(8ABcdefga G5|', 'A4*.375 B4*.375 C5*.375 D5*.375 E5*.375 F5*.375 G5*.375 A5*.375 G4*5'],
  ['(9 in 12/8', 'M:12/8\nL:1/8\nK:C\n(9ABcdefgab G9|', 'A4*.333 B4*.333 C5*.333 D5*.333 E5*.333 F5*.333 G5*.333 A5*.333 B5*.333 G4*9'],
  ['(3:2', '(3:2ABc G6|', 'A4*.667 B4*.667 C5*.667 G4*6'],
  ['(3::', '(3::ABc G6|', 'A4*.667 B4*.667 C5*.667 G4*6'],
  ['(3:2:4', '(3:2:4A2BcA G4|', 'A4*1.333 B4*.667 C5*.667 A4*.667 G4*4'],
  ['(3::2', '(3::2A2B G6|', 'A4*1.333 B4*.667 G4*6'],
  ['(5:4:5', '(5:4:5ABcde G4|', 'A4*.8 B4*.8 C5*.8 D5*.8 E5*.8 G4*4'],
  ['a rest in a triplet', '(3AzB G6|', 'A4*.667 z*.667 B4*.667 G4*6'],
  ['a chord in a triplet', '(3A[Bd]c G6|', 'A4*.667 B4+D5*.667 C5*.667 G4*6'],
  ['a slur over a triplet', '((3ABc) G6|', 'A4*.667 B4*.667 C5*.667 G4*6'],
  ['grace notes in a triplet', '(3A{g}Bc G6|', 'A4*.667 {G5}B4*.667 C5*.667 G4*6'],
  ['two triplets', '(3ABc(3dcB G4|', 'A4*.667 B4*.667 C5*.667 D5*.667 C5*.667 B4*.667 G4*4'],
  // Accidentals
  ['sharp', '^F8|', 'F#4*8'],
  ['flat', '_B8|', 'A#4*8'],
  ['double sharp', '^^F8|', 'G4*8'],
  ['double flat', '__B8|', 'A4*8'],
  ['natural', 'K:G\n=F8|', 'F4*8'],
  ['an accidental holds to the bar line', '^F2F2 G4|F8|', 'F#4*2 F#4*2 G4*4 | F4*8'],
  ['in every octave', '^F2f2F,2f2|', 'F#4*2 F#5*2 F#3*2 F#5*2'],
  ['a natural ends it', '^F2=F2F4|', 'F#4*2 F4*2 F4*4'],
  ['%%propagate-accidentals octave', '%%propagate-accidentals octave\n^F2f2F4|', 'F#4*2 F5*2 F#4*4'],
  ['%%propagate-accidentals not', '%%propagate-accidentals not\n^F2F2f4|', 'F#4*2 F4*2 F5*4'],
  ['I:propagate-accidentals', 'I:propagate-accidentals octave\n^F2f6|', 'F#4*2 F5*6'],
  ['a tie carries it over the bar line', '^c8-|c4 c4|', 'C#5*12 | C5*4'],
  ['a tie carries it over two bar lines', '^c8-|c8-|c4 c4|', 'C#5*20 | C5*4'],
  ['a tie carries a natural', 'K:G\n=F8-|F4 F4|', 'F4*12 | F#4*4'],
  ['a grace note’s accidental stays there', '{^f}e4 f4|', '{F#5}E5*4 F5*4'],
  ['a grace note takes the bar’s accidental', '^f4 {f}e4|', 'F#5*4 {F#5}E5*4'],
  ['the key’s accidentals in grace notes', 'K:D\n{f}e8|', '{F#5}E5*8'],
  ['an accidental in a chord holds on', '[C^F]4 F4|', 'C4+F#4*4 F#4*4'],
  // Keys
  ['K:HP sounds F and C sharp', 'K:HP\nfcdg|', 'F#5 C#5 D5 G5'],
  ['K:Hp does too', 'K:Hp\nfcdg|', 'F#5 C#5 D5 G5'],
  ['accidentals under K:HP', 'K:HP\n=c4 ^g4|', 'C5*4 G#5*4'],
  ['K:G exp _b has B flat only', 'K:G exp _b\nBfF2 B4|', 'A#4 F5 F4*2 A#4*4'],
  ['K:D ^g adds one', 'K:D ^g\nfcgd|', 'F#5 C#5 G#5 D5'],
  ['K:D =c takes one away', 'K:D =c\nfcgd|', 'F#5 C5 G5 D5'],
  ['K:Am ^g ^f', 'K:Am ^g ^f\ngfed|', 'G#5 F#5 E5 D5'],
  ['K: empty', 'K:\nfcgd|', 'F5 C5 G5 D5'],
  ['K:none', 'K:none\nfcgd|', 'F5 C5 G5 D5'],
  ['spelled with a blank', 'K:D mix\nfcgd|', 'F#5 C5 G5 D5'],
  ['spelled out', 'K:D Mixolydian\nfcgd|', 'F#5 C5 G5 D5'],
  ['spelled in capitals', 'K:D MIX\nfcgd|', 'F#5 C5 G5 D5'],
  ['K:D maj', 'K:D maj\nfcgd|', 'F#5 C#5 G5 D5'],
  ['K:Dmin', 'K:Dmin\nfcgB|', 'F5 C5 G5 A#4'],
  ['a key with a clef', 'K:G clef=treble\nf8|', 'F#5*8'],
  ['a key with an unknown word', 'K:G foo=bar stems=up\nf8|', 'F#5*8'],
  ['key change by line', 'K:C\nf8|\nK:G\nf8|', 'F5*8 | F#5*8'],
  ['key change in brackets', 'K:C\nf8|[K:G]f8|', 'F5*8 | F#5*8'],
  ['treble-8 sounds an octave lower', 'K:C treble-8\nCDEF|', 'C3 D3 E3 F3'],
  ['clef=treble+8', 'K:C clef=treble+8\nCDEF|', 'C5 D5 E5 F5'],
  ['octave=1', 'K:C octave=1\nCDEF|', 'C5 D5 E5 F5'],
  ['octave=-1', 'K:C octave=-1\ncdef|', 'C4 D4 E4 F4'],
  ['transpose=-2', 'K:C transpose=-2\nCDEF|', 'A#3 C4 D4 D#4'],
  ['transpose=2 of a voice', 'K:C\nV:1 transpose=2\nCDEF|', 'D4 E4 F#4 G4'],
  // Chords
  ['a chord', '[CEG]8|', 'C4+E4+G4*8'],
  ['a chord’s length after it', '[CE]2G6|', 'C4+E4*2 G4*6'],
  ['lengths inside', '[C2E2]G6|', 'C4+E4*2 G4*6'],
  ['lengths inside and after', '[C2E2]2G4|', 'C4+E4*4 G4*4'],
  ['the first note’s length counts', '[G2B4]G6|', 'G4+B4*2 G4*6'],
  ['tied chord', '[CE]4-[CE]4|', 'C4+E4*8'],
  ['one note of a chord tied', '[C-E]4[CG]4|', 'C4*8+E4*4 G4*4'],
  ['chord symbols are no notes', '"Am"A4 "G7"B4|', 'A4*4 B4*4'],
  ['annotations are no notes', '"^up"A4 "_down"B4|', 'A4*4 B4*4'],
  ['an empty chord', '[]C8|', 'C4*8'],
  ['overlay', 'G8&B,8|c8|', 'G4*8 | C5*8'],
  ['overlay of two notes', 'G4A4&B,4C4|c8|', 'G4*4 A4*4 | C5*8'],
  // Ties and slurs
  ['a tie within the bar', 'C4-C4|', 'C4*8'],
  ['a tie over the bar line', 'C8-|C8|', 'C4*16'],
  ['a tie over a line end', 'C8-|\nC8|', 'C4*16'],
  ['a tie with a blank', 'C4- C4|', 'C4*8'],
  ['a dotted tie', 'C4.-C4|', 'C4*8'],
  ['a tie to another note is none', 'C4-D4|', 'C4*4 D4*4'],
  ['a tie then a rest is none', 'C4-z2C2|', 'C4*4 z*2 C4*2'],
  ['a tie before grace notes', 'C4-{g}C4|', 'C4*8'],
  ['a slur', '(CDEF) GABc|', 'C4 D4 E4 F4 G4 A4 B4 C5'],
  ['slurs in slurs', '((CD)EF) GABc|', 'C4 D4 E4 F4 G4 A4 B4 C5'],
  ['a dotted slur', '.(CDEF) GABc|', 'C4 D4 E4 F4 G4 A4 B4 C5'],
  ['a slur never closed', '(CDEF GABc|', 'C4 D4 E4 F4 G4 A4 B4 C5'],
  // Grace notes
  ['one grace note', '{g}A8|', '{G5}A4*8'],
  ['several', '{gcd}A8|', '{G5 C5 D5}A4*8'],
  ['slashed', '{/g}A8|', '{G5}A4*8'],
  ['with lengths', '{g2c/}A8|', '{G5 C5}A4*8'],
  ['with blanks', '{g c d}A8|', '{G5 C5 D5}A4*8'],
  ['before a chord', '{g}[AC]8|', '{G5}A4+C4*8'],
  ['with a slur', '({g}A4B4)|', '{G5}A4*4 B4*4'],
  ['empty', '{}A8|', 'A4*8'],
  // Decorations
  ['!trill!', '!trill!A8|', 'A4*8'],
  ['an unknown decoration', '!wobble!A8|', 'A4*8'],
  ['+fermata+', '+fermata+A8|', 'A4*8'],
  ['old line end', 'A8|!\nB8|', 'A4*8 | B4*8'],
  ['signs of one letter', '.A~BTcHd uevfLgMa|', 'A4 B4 C5 D5 E5 F5 G5 A5'],
  ['U: explains a letter', 'U:W=!wedge!\nK:C\nWA8|', 'A4*8'],
  ['a letter that nobody explained', 'JA8|', 'A4*8'],
  ['dynamics', '!p!A4!crescendo(!B4|!crescendo)!c8|', 'A4*4 B4*4 | C5*8'],
  // Bar lines
  ['||', 'A8||B8|', 'A4*8 | B4*8'],
  ['|]', 'A8|]B8|', 'A4*8 | B4*8'],
  ['[|', 'A8[|B8|', 'A4*8 | B4*8'],
  ['[|]', 'A8[|]B8|', 'A4*8 | B4*8'],
  ['.|', 'A8.|B8|', 'A4*8 | B4*8'],
  ['|||', 'A8|||B8|', 'A4*8 | B4*8'],
  ['two lines with a blank', 'A8| |B8|', 'A4*8 | B4*8'],
  ['a bar over a line end', 'A4\nB4|', 'A4*4 B4*4'],
  ['a bar line at the start', '|A8|B8|', 'A4*8 | B4*8'],
  ['no bar line at the end', 'A8|B8', 'A4*8 | B4*8'],
  ['\\ goes on', 'A4\\\nB4|', 'A4*4 B4*4'],
  ['a backquote', 'A`B`c`d efga|', 'A4 B4 C5 D5 E5 F5 G5 A5'],
  ['$ and *', 'A8|$\nB8|*\n', 'A4*8 | B4*8'],
  // Repeats
  [':|', 'A8:|', 'A4*8 | A4*8'],
  ['|: :|', 'C8|:A8:|', 'C4*8 | A4*8 | A4*8'],
  ['::', '|:A8::B8:|', 'A4*8 | A4*8 | B4*8 | B4*8'],
  [':: of three', '|:A8::B8::c8:|', 'A4*8 | A4*8 | B4*8 | B4*8 | C5*8 | C5*8'],
  [':|:', '|:A8:|:B8:|', 'A4*8 | A4*8 | B4*8 | B4*8'],
  [':||:', '|:A8:||:B8:|', 'A4*8 | A4*8 | B4*8 | B4*8'],
  ['|:|:', '|:|:A8:|', 'A4*8 | A4*8'],
  ['||:', 'C8||:A8:|', 'C4*8 | A4*8 | A4*8'],
  [':| ||', '|:A8:| ||B8|', 'A4*8 | A4*8 | B4*8'],
  [':| on the next line', '|:A8|\n:|B8|', 'A4*8 | A4*8 | B4*8'],
  ['|: on the line before', 'C8|:\nA8:|', 'C4*8 | A4*8 | A4*8'],
  [':|x3', '|:A8:|x3 B8|', 'A4*8 | A4*8 | A4*8 | B4*8'],
  ['|:: ::|', '|::A8::|B8|', 'A4*8 | A4*8 | A4*8 | B4*8'],
  ['back to the latest double bar', 'A8||B8:|', 'A4*8 | B4*8 | B4*8'],
  ['back past a double bar to what was opened', '|:A8||B8:|', 'A4*8 | B4*8 | A4*8 | B4*8'],
  ['back to the latest repeat', 'A8:|B8:|', 'A4*8 | A4*8 | B4*8 | B4*8'],
  ['endings |1 |2', '|:A8|1B8:|2c8|]', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['endings [1 [2', '|:A8|[1B8:|[2c8|]', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['endings with blanks', '|: A8 |1 B8 :|2 c8 |]', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['endings of two bars', '|:A8|1B8|d8:|2c8|e8|]', 'A4*8 | B4*8 | D5*8 | A4*8 | C5*8 | E5*8'],
  ['three endings', '|:A8|1B8:|2c8:|3d8|]', 'A4*8 | B4*8 | A4*8 | C5*8 | A4*8 | D5*8'],
  ['four endings', '|:A8|1B8:|2c8:|3d8:|4e8|]', 'A4*8 | B4*8 | A4*8 | C5*8 | A4*8 | D5*8 | A4*8 | E5*8'],
  ['[1,3 [2,4', '|:A8|[1,3B8:|[2,4c8:|]', 'A4*8 | B4*8 | A4*8 | C5*8 | A4*8 | B4*8 | A4*8 | C5*8'],
  ['|1-3 |4', '|:A8|1-3B8:|4c8|]', 'A4*8 | B4*8 | A4*8 | B4*8 | A4*8 | B4*8 | A4*8 | C5*8'],
  ['the second ending closed by a repeat', '|:A8|1B8:|2c8:|d8|', 'A4*8 | B4*8 | A4*8 | C5*8 | D5*8'],
  ['music after the endings', '|:A8|1B8:|2c8||d8|', 'A4*8 | B4*8 | A4*8 | C5*8 | D5*8'],
  ['a repeat after the endings', '|:A8|1B8:|2c8||:d8:|', 'A4*8 | B4*8 | A4*8 | C5*8 | D5*8 | D5*8'],
  ['endings of two sections', '|:A8|1B8:|2c8:|:d8|1e8:|2f8:|', 'A4*8 | B4*8 | A4*8 | C5*8 | D5*8 | E5*8 | D5*8 | F5*8'],
  ['only a first ending', '|:A8|1B8:|c8|', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['endings with no music before them', '|:y|1A8:|2B8|]', 'A4*8 | B4*8'],
  ['a first ending without music', '|:A8|[1:|[2c8|]', 'A4*8 | A4*8 | C5*8'],
  ['no |: before endings', 'A8|1B8:|2c8|]', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['repeats that nothing opened, from the double bar', 'A8||B8|1c8:|2d8|]', 'A4*8 | B4*8 | C5*8 | B4*8 | D5*8'],
  // Parts and jumps
  ['P:AAB', 'P:AAB\nK:C\nP:A\nA8|\nP:B\nB8|', 'A4*8 | A4*8 | B4*8'],
  ['P:A2B', 'P:A2B\nK:C\nP:A\nA8|\nP:B\nB8|', 'A4*8 | A4*8 | B4*8'],
  ['P:(AB)2', 'P:(AB)2\nK:C\nP:A\nA8|\nP:B\nB8|', 'A4*8 | B4*8 | A4*8 | B4*8'],
  ['P:A.B.A', 'P:A.B.A\nK:C\nP:A\nA8|\nP:B\nB8|', 'A4*8 | B4*8 | A4*8'],
  ['P:BA', 'P:BA\nK:C\nP:A\nA8|\nP:B\nB8|', 'B4*8 | A4*8'],
  [
    '((A2B)2C)2',
    'P:((A2B)2C)2\nK:C\n[P:A]A8|[P:B]B8|[P:C]c8|',
    'A4*8 | A4*8 | B4*8 | A4*8 | A4*8 | B4*8 | C5*8 | A4*8 | A4*8 | B4*8 | A4*8 | A4*8 | B4*8 | C5*8',
  ],
  ['parts in brackets', 'P:ABA\nK:C\n[P:A]A8|[P:B]B8|', 'A4*8 | B4*8 | A4*8'],
  ['a repeat inside a part', 'P:AB\nK:C\nP:A\n|:A8:|\nP:B\nB8|', 'A4*8 | A4*8 | B4*8'],
  ['labels without an order', 'P:A\nA8|\nP:B\nB8|', 'A4*8 | B4*8'],
  ['a part that is not there', 'P:ACB\nK:C\nP:A\nA8|\nP:B\nB8|', 'A4*8 | B4*8'],
  ['D.C.', 'A8|B8!D.C.!|', 'A4*8 | B4*8 | A4*8 | B4*8'],
  ['D.C. al fine', 'A8!fine!|B8!D.C.!|', 'A4*8 | B4*8 | A4*8'],
  ['D.C. as words', 'A8"^Fine"|B8"^D.C. al Fine"|', 'A4*8 | B4*8 | A4*8'],
  ['D.S.', 'A8|!segno!B8|c8!D.S.!|', 'A4*8 | B4*8 | C5*8 | B4*8 | C5*8'],
  ['D.S. al fine', 'A8|!segno!B8!fine!|c8!D.S.!|', 'A4*8 | B4*8 | C5*8 | B4*8'],
  ['D.C. al coda', 'A8!coda!|B8!D.C.!|!coda!c8|', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['to coda as words', 'A8"^To Coda"|B8!D.C.!|!coda!c8|', 'A4*8 | B4*8 | A4*8 | C5*8'],
  ['no repeats after D.C.', '|:A8:|B8!D.C.!|', 'A4*8 | A4*8 | B4*8 | A4*8 | B4*8'],
  ['the last ending after D.C.', '|:A8|1B8:|2c8!D.C.!|]', 'A4*8 | B4*8 | A4*8 | C5*8 | A4*8 | C5*8'],
  // Fields
  ['no M: is 4/4', 'K:C\nA8|', 'A4*8'],
  ['no L: under 3/4 is a sixteenth', 'M:2/4\nK:C\nA8|', 'A4*4'],
  ['no L: from 3/4 on is an eighth', 'M:3/4\nK:C\nA6|', 'A4*6'],
  ['M:C', 'M:C\nL:1/4\nK:C\nA4|', 'A4*8'],
  ['L: changed by line', 'L:1/8\nK:C\nA8|\nL:1/4\nA4|', 'A4*8 | A4*8'],
  ['L: changed in brackets', 'A4[L:1/4]A2|', 'A4*4 A4*4'],
  ['M: changed in brackets', 'A8|[M:3/4]A6|', 'A4*8 | A4*6'],
  ['L:1', 'L:1\nK:C\nA|', 'A4*8'],
  ['[Q:] is no note', '[Q:1/4=90]A8|', 'A4*8'],
  ['r: as a line', 'A8|\nr:remark\nB8|', 'A4*8 | B4*8'],
  ['r: in brackets', 'A4[r:remark]B4|', 'A4*4 B4*4'],
  ['N: in the body', 'A8|\nN:cdef\nB8|', 'A4*8 | B4*8'],
  ['E: of old texts', 'E:9\nK:C\nA8|', 'A4*8'],
  ['E: in the body', 'A8|\nE:9\nB8|', 'A4*8 | B4*8'],
  ['m: is passed over', 'm:~n2=n\nK:C\nA8|', 'A4*8'],
  ['+: goes on with words', 'A4B4|\nw:one\n+:two\nc8|', 'A4*4 B4*4 | C5*8'],
  ['w: is no music', 'A4B4|\nw:a b\n', 'A4*4 B4*4'],
  ['W: is no music', 'A8|\nW:cdef\n', 'A4*8'],
  ['s: is no music', 'A8|\ns:!f!\nB8|', 'A4*8 | B4*8'],
  ['an unknown %% directive', '%%wobble 3\nA8|', 'A4*8'],
  ['a remark', 'A8|% cdef\nB8|', 'A4*8 | B4*8'],
  ['%%begintext', '%%begintext\nABC\n%%endtext\nA8|', 'A4*8'],
  ['T: in the body', 'A8|\nT:Second part\nB8|', 'A4*8 | B4*8'],
  ['tempo words', 'Q:Allegro\nK:C\nA8|', 'A4*8'],
  ['a tempo with ca.', 'Q:1/4=ca. 80\nK:C\nA8|', 'A4*8'],
  ['an empty title', 'T:\nK:C\nA8|', 'A4*8'],
  ['CRLF', 'M:4/4\r\nL:1/8\r\nK:C\r\nA8|\r\nB8|\r\n', 'A4*8 | B4*8'],
  // Voices
  ['V: in turns', 'V:1\nA8|\nV:2\nC8|\nV:1\nB8|\nV:2\nD8|', 'A4*8 | B4*8'],
  ['[V:] in turns', '[V:T1]A8|\n[V:T2]C8|\n[V:T1]B8|', 'A4*8 | B4*8'],
  ['two lines of one voice', '[V:a]A8|\n[V:a]B8|\n[V:b]C8|', 'A4*8 | B4*8'],
  ['voices in the head', 'V:1\nV:2\nK:C\nV:1\nA8|\nV:2\nC8|', 'A4*8'],
  ['a voice whose music comes second', 'V:1\nV:2\nK:C\nV:2\nC8|\nV:1\nA8|', 'A4*8'],
  ['%%score says which is first', '%%score (T1 T2)\nV:T1\nV:T2\nK:C\n[V:T2]C8|\n[V:T1]A8|', 'A4*8'],
  ['%%staves too', '%%staves [b a]\nK:C\n[V:a]C8|\n[V:b]A8|', 'A4*8'],
  ['a key change in one voice', '[V:1]f8|[K:G]f8|\n[V:2]f8|', 'F5*8 | F#5*8'],
];

const scaleOf: Readonly<Record<string, readonly number[]>> = {
  '': [0, 2, 4, 5, 7, 9, 11],
  m: [0, 2, 3, 5, 7, 8, 10],
  dor: [0, 2, 3, 5, 7, 9, 10],
  phr: [0, 1, 3, 5, 7, 8, 10],
  lyd: [0, 2, 4, 6, 7, 9, 11],
  mix: [0, 2, 4, 5, 7, 9, 10],
  loc: [0, 1, 3, 5, 6, 8, 10],
};

/** Fifths from a mode to the major key of the same name. */
const modeFifths: Readonly<Record<string, number>> = { '': 0, m: -3, dor: -2, phr: -4, lyd: 1, mix: -1, loc: -5 };
/** Names of keys with their first note in semitones above C and their sharps in major. */
const tonics: readonly (readonly [name: string, semitone: number, sharps: number])[] = [
  ['C', 0, 0],
  ['G', 7, 1],
  ['D', 2, 2],
  ['A', 9, 3],
  ['E', 4, 4],
  ['B', 11, 5],
  ['F#', 6, 6],
  ['C#', 1, 7],
  ['F', 5, -1],
  ['Bb', 10, -2],
  ['Eb', 3, -3],
  ['Ab', 8, -4],
  ['Db', 1, -5],
  ['Gb', 6, -6],
  ['Cb', -1, -7],
];
const names = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const letters = 'CDEFGAB';

/** Every key in every mode that has at most seven sharps or flats: the scale that its name promises. The steps of the modes are the field's. */
export const scales: readonly Fragment[] = Object.entries(scaleOf).flatMap(([mode, steps]) =>
  tonics
    .filter(([, , sharps]) => Math.abs(sharps + modeFifths[mode]) <= 7)
    .map(([name, semitone]): Fragment => {
      const from = letters.indexOf(name[0]);
      const music = steps.map((_, step) => `${letters[(from + step) % 7]}${from + step >= 7 ? "'" : ''}`).join('');
      const heard = steps.map((step) => `${names[(semitone + step + 12) % 12]}${4 + Math.floor((semitone + step) / 12)}`);
      return [`K:${name}${mode}`, `M:7/8\nL:1/8\nK:${name}${mode}\n${music}|`, heard.join(' ')];
    }),
);

/** A fragment as a whole tune. */
export function fragmentText(text: string): string {
  if (!/^K:/m.test(text)) return `X:1\nT:t\nM:4/4\nL:1/8\nK:C\n${text}\n`;
  const hasOwnMeter = /^M:/m.test(text) || !/^(P|V|%%|U|m|E|Q|L|T):?/.test(text);
  return `X:1\nT:t\n${hasOwnMeter ? '' : 'M:4/4\n'}${text}\n`;
}

const nameOf = (semitone: number): string => `${names[((semitone % 12) + 12) % 12]}${Math.floor(semitone / 12) - 1}`;
interface Sounding {
  readonly semitone: number;
  length: number;
}

/** What the first voice sounds, in the notation of the corpus. */
export function heardOf(score: Score): string {
  const [voice] = score.voices;
  const bars: { text: string; notes: Sounding[] }[][] = [];
  let before: Sounding[] = [];
  for (const index of playingOrder(voice.bars, score.partOrder)) {
    const bar = voice.bars[index];
    const sounds: { text: string; notes: Sounding[] }[] = [];
    for (const event of voice.events.slice(bar.first, bar.end)) {
      const notes = begin(event, before, voice.soundsAt);
      before = notes;
      const begun = notes.filter(({ length }) => length === event.duration);
      if (event.pitches.length === 0) sounds.push({ text: `z${lengthText(event.duration)}`, notes: [] });
      else if (begun.length > 0)
        sounds.push({ text: event.graceNotes.length === 0 ? '' : `{${event.graceNotes.map((grace) => nameOf(semitoneOf(grace))).join(' ')}}`, notes: begun });
    }
    bars.push(sounds);
  }
  return bars
    .map((sounds) => sounds.map(({ text, notes }) => text + chordText(notes)).join(' '))
    .filter((text) => text !== '')
    .join(' | ');
}

/** The notes that sound with an event; a tied one goes on as it was. */
function begin(event: ScoreEvent, before: readonly Sounding[], soundsAt: number): Sounding[] {
  return event.pitches.map((pitch) => {
    const semitone = semitoneOf(pitch) + soundsAt;
    const tied = pitch.isTiedFromPrevious ? before.find((each) => each.semitone === semitone) : undefined;
    if (tied === undefined) return { semitone, length: event.duration };
    tied.length += event.duration;
    return tied;
  });
}

function chordText(notes: readonly Sounding[]): string {
  const isOne = notes.every(({ length }) => length === notes[0].length);
  if (isOne) return notes.length === 0 ? '' : `${notes.map(({ semitone }) => nameOf(semitone)).join('+')}${lengthText(notes[0].length)}`;
  return notes.map(({ semitone, length }) => `${nameOf(semitone)}${lengthText(length)}`).join('+');
}

function lengthText(duration: number): string {
  const eighths = Math.round(duration * 8 * 1000) / 1000;
  return eighths === 1 ? '' : `*${String(eighths).replace(/^0/, '')}`;
}
