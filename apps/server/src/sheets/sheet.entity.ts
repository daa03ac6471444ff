import type { MusicKind, Review } from '@zelpit/contract';
import type { ChosenFingering, Excerpt, Exercise, ItemDetails } from '@zelpit/core';
import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

@Entity({ name: 'sheet' })
export class SheetEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'student_id' }) studentId: string;
  @Column({ type: 'uuid', name: 'tune_id', nullable: true }) tuneId: string | null;
  @Column({ type: 'text' }) instrument: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text' }) note: string;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  /** What makes it a review; null for a sheet that is none. */
  @Column({ type: 'jsonb', nullable: true }) review: Review | null;
  @Column({ type: 'uuid', name: 'lesson_id', nullable: true }) lessonId: string | null;
  /** When it was sent; from then on it never changes. */
  @Column({ type: 'timestamptz', name: 'sent_at', nullable: true }) sentAt: Date | null;
  @Column({ type: 'timestamptz', name: 'opened_at', nullable: true }) openedAt: Date | null;
  /** The version that it was written anew from. */
  @Column({ type: 'uuid', name: 'replaces_id', nullable: true }) replacesId: string | null;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}

@Entity({ name: 'sheet_line' })
export class SheetLineEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'sheet_id' }) sheetId: string;
  @Column({ type: 'int' }) position: number;
  /** Unique within its studio. */
  @Column({ type: 'text' }) code: string;
  /** What it is made of: a kind of music, or words alone. */
  @Column({ type: 'text', default: 'line' }) kind: MusicKind | 'words';
  /** Null where it has no notes. */
  @Column({ type: 'text', nullable: true }) home: string | null;
  @Column({ type: 'text', nullable: true }) other: string | null;
  /** What is to be done; null where it has notes. */
  @Column({ type: 'text', nullable: true }) words: string | null;
  @Column({ type: 'int' }) repetitions: number;
  @Column({ type: 'int', nullable: true }) tempo: number | null;
  /** Speeds one after the other; null for one pace. */
  @Column({ type: 'jsonb', nullable: true }) speeds: readonly number[] | null;
  @Column({ type: 'text' }) point: string;
  /** The line's own music; null for the change there and back. */
  @Column({ type: 'jsonb', nullable: true }) exercise: Exercise | null;
  /** The piece of a tune that it is; null for a line. */
  @Column({ type: 'jsonb', nullable: true }) excerpt: Excerpt | null;
  /** How its notes are fingered; null for the way taught first throughout. */
  @Column({ type: 'jsonb', nullable: true }) fingering: readonly ChosenFingering[] | null;
  /** What is said of it beside its count and its pace; null for nothing. */
  @Column({ type: 'jsonb', nullable: true }) details: ItemDetails | null;
  /** When it was taken off its sheet; it keeps its code in case it comes back. */
  @Column({ type: 'timestamptz', name: 'removed_at', nullable: true }) removedAt: Date | null;
}
