import type { Review } from '@zelpit/contract';
import { changedIn, type Choices, type Comparison, type Piece } from '../../kernel/saving/pieces';
import type { DraftLine } from './line-input';
import { isSameLine, isSameReview, type SheetDraft } from './sheet-kind';

type Found = DraftLine | undefined;

const isSameOrGone = (one: Found, other: Found): boolean => (one === undefined || other === undefined ? one === other : isSameLine(one, other));
const find = ({ lines }: SheetDraft, id: string): Found => lines.find((line) => line.id === id);
/** Ids of the lines that both have, in the order of the first. */
const common = (one: SheetDraft, other: SheetDraft): readonly string[] => one.lines.map(({ id }) => id).filter((id) => find(other, id) !== undefined);

/** Two versions of a sheet, title, words and lines side by side; `describe` puts a line into words, `title` names it. */
export function compareSheets(
  base: SheetDraft,
  mine: SheetDraft,
  theirs: SheetDraft,
  title: (line: DraftLine) => string,
  describe: (line: DraftLine) => string,
): Comparison<SheetDraft> {
  const ids = [...new Set([...mine.lines, ...theirs.lines].map(({ id }) => id))];
  const lines = ids.map((id): Piece => {
    const [old, own, other] = [find(base, id), find(mine, id), find(theirs, id)];
    const words = (line: Found): string => (line === undefined ? 'not on the sheet' : describe(line));
    return { key: id, name: title((own ?? other) as DraftLine), mine: words(own), theirs: words(other), changed: changedIn(old, own, other, isSameOrGone) };
  });
  const text = (key: 'title' | 'note', name: string): Piece => ({
    key,
    name,
    mine: mine[key],
    theirs: theirs[key],
    changed: changedIn(base[key], mine[key], theirs[key]),
  });
  const pieces = [
    text('title', 'Title'),
    text('note', 'Message at the top'),
    ...reviewPiece(base, mine, theirs),
    ...lines,
    ...orderPiece(base, mine, theirs, title),
  ];
  return { pieces, join: (choices) => join(mine, theirs, ids, choices) };
}

/** What comes first, the day and what was struck out, together. */
function reviewPiece(base: SheetDraft, mine: SheetDraft, theirs: SheetDraft): readonly Piece[] {
  if (mine.review == null && theirs.review == null) return [];
  const words = ({ review }: SheetDraft): string =>
    [review?.priority?.text, review?.priority?.sentence, review == null ? '' : `${review.minutes} minutes a day, ${review.struck.length} struck out`]
      .filter((part) => part !== undefined && part !== '')
      .join(' ');
  const changed = changedIn<Review | null | undefined>(base.review, mine.review, theirs.review, isSameReview);
  return [{ key: 'review', name: 'What comes first', mine: words(mine), theirs: words(theirs), changed }];
}

function orderPiece(base: SheetDraft, mine: SheetDraft, theirs: SheetDraft, title: (line: DraftLine) => string): readonly Piece[] {
  const [own, other] = [common(mine, theirs), common(theirs, mine)];
  const isSame = (one: readonly string[], another: readonly string[]): boolean => one.join() === another.join();
  if (isSame(own, other)) return [];
  const old = base.lines.map(({ id }) => id).filter((id) => own.includes(id));
  const words = (draft: SheetDraft, order: readonly string[]): string => order.map((id) => title(find(draft, id) as DraftLine)).join('; ');
  return [{ key: 'order', name: 'Order of the lines', mine: words(mine, own), theirs: words(theirs, other), changed: changedIn(old, own, other, isSame) }];
}

function join(mine: SheetDraft, theirs: SheetDraft, ids: readonly string[], choices: Choices): SheetDraft {
  const of = (key: string): SheetDraft => (choices.get(key) === 'theirs' ? theirs : mine);
  const chosen = new Map(ids.flatMap((id) => (find(of(id), id) === undefined ? [] : [[id, find(of(id), id) as DraftLine] as const])));
  const first = of('order');
  const second = first === mine ? theirs : mine;
  const order = first.lines.map(({ id }) => id);
  // A line that only the other version has stands after the same line as there.
  second.lines.forEach(({ id }, index) => {
    if (!order.includes(id)) order.splice(index === 0 ? 0 : order.indexOf(second.lines[index - 1].id) + 1, 0, id);
  });
  return { title: of('title').title, note: of('note').note, review: of('review').review, lines: order.flatMap((id) => chosen.get(id) ?? []) };
}
