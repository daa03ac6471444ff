import type { Arrangement } from '@zelpit/contract';
import { Column, CreateDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

/** How one student plays one tune. */
@Entity({ name: 'arrangement' })
export class ArrangementEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'student_id' }) studentId: string;
  @Column({ type: 'uuid', name: 'tune_id' }) tuneId: string;
  @Column({ type: 'jsonb' }) arrangement: Arrangement;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
}
