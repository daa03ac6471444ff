import { formOf, measuresOf, readForm, type Form } from '@zelpit/core/form';
import type { OpenedTune } from './tunes.service';

/** The form of a tune: as a teacher corrected it, where that still adds up with the text; else as it is found. */
export function formOfTune({ instrument, tune, detail }: Pick<OpenedTune, 'instrument' | 'tune' | 'detail'>): Form {
  try {
    return formOf(instrument, tune, readForm(detail.about.form, measuresOf(tune).length));
  } catch {
    return formOf(instrument, tune);
  }
}
