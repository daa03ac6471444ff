import type { Tuning, WrittenOctave } from '@zelpit/core';
import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

/** An instrument that somebody plays. The owner is a student, a teacher, or the studio where neither is there. */
@Entity({ name: 'instrument' })
export class InstrumentEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'uuid', name: 'teacher_id', nullable: true }) teacherId: string | null;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'text' }) hands: 'left-on-top' | 'right-on-top';
  @Column({ type: 'text', default: 'as-charted' }) written: WrittenOctave;
  @Column({ type: 'jsonb' }) tuning: Tuning;
  @Column({ type: 'jsonb' }) schools: Record<string, string>;
  @Column({ type: 'float8', name: 'reference_hertz', nullable: true }) referenceHertz: number | null;
  @Column({ type: 'jsonb', name: 'known_notes' }) knownNotes: string[];
  @Column({ type: 'text' }) note: string;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}
