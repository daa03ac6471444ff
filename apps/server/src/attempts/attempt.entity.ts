import type { AttemptInput, AttemptRating } from '@zelpit/contract';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** One try at something. A log: nothing in it is changed. */
@Entity({ name: 'attempt' })
export class AttemptEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'student_id' }) studentId: string;
  /** The item may be gone from its sheet since. */
  @Column({ type: 'uuid', name: 'item_id', nullable: true }) itemId: string | null;
  @Column({ type: 'uuid', name: 'lesson_id', nullable: true }) lessonId: string | null;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text' }) kind: AttemptInput['kind'];
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'int', nullable: true }) tempo: number | null;
  @Column({ type: 'int' }) count: number;
  @Column({ type: 'text' }) rating: AttemptRating;
  @Column({ type: 'jsonb', nullable: true }) ladder: AttemptInput['ladder'];
  @Column({ type: 'int' }) seconds: number;
  @Column({ type: 'text' }) device: AttemptInput['device'];
  @Column({ type: 'text' }) note: string;
  @Column({ type: 'text' }) by: 'student' | 'teacher';
  @PrimaryColumn({ type: 'timestamptz' }) at: Date;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

/** A try judged otherwise later. */
@Entity({ name: 'attempt_correction' })
export class AttemptCorrectionEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'attempt_id' }) attemptId: string;
  @Column({ type: 'uuid', name: 'student_id' }) studentId: string;
  @Column({ type: 'text' }) rating: AttemptRating;
  @Column({ type: 'text' }) note: string;
  @Column({ type: 'text' }) who: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
