import type { MovementDefinition } from '@zelpit/core';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** A movement as a studio plays it; without a definition it was confirmed as it is built in. */
@Entity({ name: 'movement' })
export class MovementEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) movement: string;
  @Column({ type: 'jsonb', nullable: true }) definition: MovementDefinition | null;
  @Column({ type: 'text', name: 'kept_by' }) keptBy: string;
  /** Day, as 2026-03-09. */
  @Column({ type: 'text', name: 'kept_on' }) keptOn: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
