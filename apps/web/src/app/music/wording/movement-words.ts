import type { LayerKind, MovementLayer } from '@zelpit/core/movement';
import type { Choice } from '../../kernel/chooser/chooser.component';

/** Tempos for what is played on the click, in beats a minute. */
export const tempos: readonly Choice<number>[] = [40, 50, 60, 70, 80, 90, 100, 120].map((tempo) => ({ value: tempo, label: String(tempo) }));

export const layerWords: Readonly<Record<LayerKind, string>> = { bare: 'bare', one: 'one grace note', simpler: 'simpler', full: 'in full', heavier: 'heavier' };

/** The kinds of some layers, once each: "bare, one grace note". */
export const layersText = (layers: readonly MovementLayer[]): string => [...new Set(layers.map(({ kind }) => layerWords[kind]))].join(', ');
