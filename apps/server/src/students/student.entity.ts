import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn } from 'typeorm';

@Entity({ name: 'student' })
export class StudentEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) alias: string;
  @Column({ type: 'jsonb', nullable: true }) consent: { guardian: string; on: string; covers: string } | null;
  /** Ids of the movements that the student has. */
  @Column({ type: 'jsonb', default: [] }) movements: string[];
  /** Grows by one with every save. */
  @Column({ type: 'int', default: 1 }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}
