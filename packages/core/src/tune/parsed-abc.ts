/** The part of an ABC parser's answer that is read here; abcjs gives it. The parser is handed in, the core has none. */
export interface ParsedPitch {
  /** Steps of the scale above middle C; 7 to the octave. */
  readonly pitch: number;
  readonly accidental?: string;
  readonly endTie?: unknown;
  /** Slurs that begin and end here. */
  readonly startSlur?: readonly unknown[];
  readonly endSlur?: readonly unknown[];
}

export interface ParsedElement {
  readonly el_type: string;
  readonly type?: string;
  readonly startChar?: number;
  readonly endChar?: number;
  readonly duration?: number;
  readonly pitches?: readonly ParsedPitch[];
  readonly rest?: { readonly type: string };
  /** Names of the decorations over a note, as the parser calls them. */
  readonly decoration?: readonly string[];
  readonly gracenotes?: readonly ParsedPitch[];
  readonly startSlur?: readonly unknown[];
  readonly endSlur?: readonly unknown[];
  readonly startTriplet?: number;
  readonly tripletMultiplier?: number;
  readonly endTriplet?: unknown;
  readonly startEnding?: string;
  readonly endEnding?: unknown;
  readonly accidentals?: readonly ParsedKeyAccidental[];
  readonly root?: string;
  readonly value?: readonly { readonly num: string; readonly den: string }[];
}

export interface ParsedKeyAccidental {
  readonly acc: string;
  readonly note: string;
}

export interface ParsedAbc {
  readonly warnings?: readonly string[];
  readonly metaText: {
    readonly title?: string;
    readonly rhythm?: string;
    readonly tempo?: { readonly duration?: readonly number[]; readonly bpm?: number };
  };
  readonly lines: readonly {
    readonly staff?: readonly {
      readonly key?: { readonly root?: string; readonly acc?: string; readonly mode?: string; readonly accidentals?: readonly ParsedKeyAccidental[] };
      readonly meter?: { readonly type?: string; readonly value?: readonly { readonly num: string; readonly den: string }[] };
      readonly voices?: readonly (readonly ParsedElement[])[];
    }[];
  }[];
}

/** Parses the text of one tune. */
export type ParseAbc = (abc: string) => ParsedAbc;
