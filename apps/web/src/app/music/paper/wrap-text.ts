/** Width of a text in px at a size and weight. */
export type Measure = (text: string, size: number, weight: number) => number;

/**
 * Breaks a text into lines that fit, at spaces; a word too long for a line is cut. Text that does not fit into `most`
 * lines ends with an ellipsis.
 */
export function wrapText(measure: Measure, text: string, style: { size: number; weight: number; width: number; most: number }): readonly string[] {
  const fits = (line: string): boolean => measure(line, style.size, style.weight) <= style.width;
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter((each) => each !== '')) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (fits(longer)) {
      line = longer;
      continue;
    }
    if (line !== '') lines.push(line);
    line = word;
    while (!fits(line) && line.length > 1) {
      let cut = line.length - 1;
      while (cut > 1 && !fits(line.slice(0, cut))) cut -= 1;
      lines.push(line.slice(0, cut));
      line = line.slice(cut);
    }
  }
  if (line !== '') lines.push(line);
  if (lines.length <= style.most) return lines;
  let last = lines[style.most - 1];
  while (last.length > 1 && !fits(`${last} …`)) last = last.includes(' ') ? last.slice(0, last.lastIndexOf(' ')) : last.slice(0, -1);
  return [...lines.slice(0, style.most - 1), `${last} …`];
}
