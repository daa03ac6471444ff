import type { Form } from '@zelpit/core/form';
import type { Tune } from '@zelpit/core/tune';
import type { Choice } from '../../kernel/chooser/chooser.component';

/** What of a tune is played: all of it, or one of its parts or phrases; "all", "part 0", "section 2". */
export function stretchChoices(form: Form | undefined): readonly Choice<string>[] {
  if (form === undefined) return [];
  const parts = form.parts.flatMap(({ letter, again }, index) =>
    again === undefined && form.parts.length > 1 ? [{ value: `part ${index}`, label: `part ${letter}` }] : [],
  );
  const sections = form.sections.length > 1 ? form.sections.map(({ number }) => ({ value: `section ${number - 1}`, label: `phrase ${number}` })) : [];
  return [{ value: 'all', label: 'the whole tune' }, ...parts, ...sections];
}

/** Its bars as they are played, as indices into the bars of the tune. */
export function barsOfStretch(form: Form, { playedBars }: Tune, what: string): readonly number[] {
  const [kind, index] = what.split(' ');
  if (kind === 'part') return barsIn(form, form.parts[Number(index)] ?? form.parts[0]);
  if (kind === 'section') return barsIn(form, form.sections[Number(index)] ?? form.sections[0]);
  return playedBars;
}

/** The bars of some measures, with what leads into each. */
export const barsIn = (form: Form, { first, end }: { readonly first: number; readonly end: number }): readonly number[] =>
  form.measures.slice(first, end).flatMap(({ lead, bar }) => [...lead, bar]);
