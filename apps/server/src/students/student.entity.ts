import { usualDayMinutes, type Level } from '@zelpit/contract';
import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn } from 'typeorm';

@Entity({ name: 'student' })
export class StudentEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) alias: string;
  @Column({ type: 'jsonb', nullable: true }) consent: { guardian: string; on: string; covers: string } | null;
  /** Ids of the movements that the student has. */
  @Column({ type: 'jsonb', default: [] }) movements: string[];
  @Column({ type: 'text', nullable: true }) level: Level | null;
  @Column({ type: 'int', name: 'day_minutes', default: usualDayMinutes }) dayMinutes: number;
  /** A grown-up's address. */
  @Column({ type: 'text', name: 'mail_to', nullable: true }) mailTo: string | null;
  @Column({ type: 'jsonb', default: [] }) groups: string[];
  /** Grows by one with every save. */
  @Column({ type: 'int', default: 1 }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}
