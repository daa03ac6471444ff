import type { PlanItem } from '@zelpit/contract';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** When a student comes: once, or every week; a week that was held is a lesson of its own. */
@Entity({ name: 'lesson' })
export class LessonEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'student_id' }) studentId: string;
  @Column({ type: 'uuid', name: 'weekly_id', nullable: true }) weeklyId: string | null;
  /** "2026-12-01", by the clock of the studio. */
  @Column({ type: 'date', name: 'day' }) on: string;
  @Column({ type: 'text' }) time: string;
  @Column({ type: 'int' }) minutes: number;
  @Column({ type: 'text' }) repeats: 'once' | 'weekly';
  @Column({ type: 'date', nullable: true }) until: string | null;
  @Column({ type: 'text' }) note: string;
  @Column({ type: 'jsonb' }) plan: PlanItem[];
  @Column({ type: 'timestamptz', name: 'begun_at', nullable: true }) begunAt: Date | null;
  @Column({ type: 'timestamptz', name: 'ended_at', nullable: true }) endedAt: Date | null;
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
