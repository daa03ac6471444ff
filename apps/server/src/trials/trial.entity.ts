import type { TrialInput } from '@zelpit/contract';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** What a student, or a teacher trying it, did in one go: fingers played on keys, an ear tested, faults found. Kept as a log; nothing in it is changed. */
@Entity({ name: 'trial' })
export class TrialEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  /** Null for a teacher who tries it. */
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'text' }) kind: TrialInput['result']['kind'];
  @Column({ type: 'jsonb' }) result: TrialInput['result'];
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
