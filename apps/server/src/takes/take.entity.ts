import type { Take, TakeAsked, TakeRemark } from '@zelpit/contract';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A take that is kept, with what was heard in it when it was kept. */
@Entity({ name: 'take' })
export class TakeEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  /** Its sound. */
  @Column({ type: 'uuid', name: 'blob_id' }) blobId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'jsonb' }) asked: TakeAsked;
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'int' }) seconds: number;
  @Column({ type: 'int' }) places: number;
  @Column({ type: 'int' }) faulty: number;
  @Column({ type: 'text' }) text: string;
  @Column({ type: 'text' }) by: Take['by'];
  @Column({ type: 'jsonb' }) remarks: TakeRemark[];
  @Column({ type: 'timestamptz', name: 'kept_until', nullable: true }) keptUntil: Date | null;
  @Column({ type: 'boolean', name: 'is_shown', default: false }) isShown: boolean;
  @Column({ type: 'int' }) version: number;
  @Column({ type: 'timestamptz' }) at: Date;
}
