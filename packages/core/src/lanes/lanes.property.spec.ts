import * as fc from 'fast-check';
import { chartedPattern, fingerCoverage, practiceChanter as chanter } from '../fingering';
import { graceNoteRule } from '../movement';
import { coverSpans, laneLayout, markFor, ribbons, type LaneNote } from '.';

const ids = chanter.notes.map((note) => note.id);
const left = 100;
const spacing = 60;

/** A line of music: notes with the grace notes that the table allows on them, each at its place. */
const line = fc
  .array(fc.tuple(fc.option(fc.constantFrom(...ids), { nil: null }), fc.array(fc.constantFrom(...ids), { maxLength: 3 })), { minLength: 1, maxLength: 20 })
  .map((notes) =>
    notes.map(([note, wanted], index): LaneNote => {
      const x = left + 80 + index * spacing;
      const graces = note === null ? [] : wanted.filter((grace) => graceNoteRule(chanter, grace, note) !== undefined);
      return { x, note, graceNotes: graces.map((grace, place) => ({ x: x - 12 * (graces.length - place), note: grace })) };
    }),
  );

describe('coverSpans', () => {
  it('keeps every finger inside the line, in order, without overlap, and covered', () => {
    fc.assert(
      fc.property(line, (notes) => {
        const right = left + 80 + notes.length * spacing;
        for (const spans of coverSpans(chanter, notes, left, right).values()) {
          spans.forEach((span, index) => {
            expect(span.from).toBeGreaterThanOrEqual(left);
            expect(span.to).toBeLessThanOrEqual(right);
            expect(span.to).toBeGreaterThan(span.from);
            expect(span.coverage).toBeGreaterThan(0);
            if (index > 0) expect(span.from).toBeGreaterThanOrEqual(spans[index - 1].to);
          });
        }
      }),
    );
  });

  it('has under each notehead exactly the fingers of its chart down', () => {
    fc.assert(
      fc.property(line, (notes) => {
        const spans = coverSpans(chanter, notes, left, left + 80 + notes.length * spacing);
        for (const { x, note } of notes) {
          for (const finger of chanter.fingers) {
            const here = spans.get(finger.id)?.find((span) => span.from <= x && x < span.to)?.coverage ?? 0;
            expect(here).toBe(note === null ? 0 : fingerCoverage(chanter, chartedPattern(chanter, note), finger.id));
          }
        }
      }),
    );
  });
});

describe('ribbons', () => {
  it('are drawn with finite numbers, start with a move, and stay near their wood', () => {
    fc.assert(
      fc.property(line, fc.constantFrom(15.6, 21, 33, 45), (notes, pitch) => {
        const right = left + 80 + notes.length * spacing;
        const { lanes, thickness } = laneLayout(chanter, pitch);
        const spans = coverSpans(chanter, notes, left, right);
        for (const { finger, y } of lanes) {
          for (const { path } of ribbons(spans.get(finger.id) ?? [], { y, thickness, left, right })) {
            expect(path).toMatch(/^M[-\d.]+ [-\d.]+[LC]/);
            expect(path).not.toMatch(/NaN|Infinity|undefined/);
            const heights = [...path.matchAll(/[MLC ,]?(-?[\d.]+) (-?[\d.]+)/g)].map((found) => Number(found[2]));
            for (const height of heights) {
              expect(height).toBeLessThanOrEqual(y);
              expect(height).toBeGreaterThan(y - thickness * 2 - 13);
            }
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('laneLayout', () => {
  it.each([15.6, 21, 33, 45])('has one lane a finger from the face down, a gap after the thumb and between the hands, at %f px', (pitch) => {
    const { lanes, thickness, height } = laneLayout(chanter, pitch);
    expect(lanes.map(({ finger }) => finger.id)).toEqual(['T', 'L1', 'L2', 'L3', 'R1', 'R2', 'R3', 'R4']);
    const steps = lanes.slice(1).map((lane, index) => lane.y - lanes[index].y);
    const wide = steps.filter((step) => step > pitch + 1e-9);
    expect(wide).toHaveLength(2);
    expect([steps[0], steps[3]]).toEqual(wide);
    expect(thickness).toBe(pitch / 2);
    expect(height).toBeGreaterThan(lanes[7].y);
  });
});

describe('markFor', () => {
  it('says by shape first: more points for the louder note, other shapes for other faults, none for none', () => {
    const low = markFor(chanter, { kind: 'pop', note: 'low-g' }, 28);
    const higher = markFor(chanter, { kind: 'pop', note: 'low-a' }, 28);
    const corners = (path: string): number => path.split('L').length;
    expect(low?.kind === 'burst' && higher?.kind === 'burst' && corners(low.path) > corners(higher.path)).toBe(true);
    expect(markFor(chanter, { kind: 'run', notes: ['b'] }, 28)).toMatchObject({ kind: 'stair', text: 'other notes slip in' });
    expect(markFor(chanter, { kind: 'blur', note: 'b' }, 28)).toMatchObject({ kind: 'wave', text: 'a blur' });
    expect(markFor(chanter, { kind: 'none' }, 28)).toBeUndefined();
  });
});
