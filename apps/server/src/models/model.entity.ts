import type { Instrument } from '@zelpit/core';
import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

/** An instrument model that the studio made. */
@Entity({ name: 'model' })
export class ModelEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'jsonb' }) instrument: Instrument;
  @Column({ type: 'text', name: 'made_by' }) madeBy: string;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}
