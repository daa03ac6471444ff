import type { KeptFingering } from '@zelpit/core';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** What a teacher said of one fingering of a model. */
@Entity({ name: 'fingering' })
export class FingeringEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'text' }) note: string;
  /** Its holes as one text, so that one fingering is there once. */
  @Column({ type: 'text', name: 'pattern_key' }) patternKey: string;
  @Column({ type: 'jsonb' }) kept: KeptFingering;
  @Column({ type: 'text', name: 'confirmed_by' }) confirmedBy: string;
  /** Day, as 2026-03-09. */
  @Column({ type: 'text', name: 'confirmed_on' }) confirmedOn: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
