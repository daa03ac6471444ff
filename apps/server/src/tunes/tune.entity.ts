import type { TuneNotes, TunePin } from '@zelpit/contract';
import type { ChordNote, TuneFacts } from '@zelpit/core';
import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

@Entity({ name: 'tune' })
export class TuneEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text' }) rhythm: string;
  @Column({ type: 'text' }) meter: string;
  @Column({ type: 'text', name: 'music_key' }) musicKey: string;
  @Column({ type: 'int' }) bars: number;
  @Column({ type: 'int' }) outside: number;
  @Column({ type: 'text' }) instrument: string;
  @Column({ type: 'text' }) abc: string;
  /** Id of the voice that is read; empty for the first. */
  @Column({ type: 'text', default: '' }) voice: string;
  /** Which note of a chord is played. */
  @Column({ type: 'text', name: 'chord_note', default: 'highest' }) chordNote: ChordNote;
  /** By which reader what stands above and `facts` were worked out. */
  @Column({ type: 'int', default: 1 }) reader: number;
  @Column({ type: 'jsonb', default: {} }) facts: TuneFacts;
  /** Fingerings that must be taken, one a note. */
  @Column({ type: 'jsonb', default: [] }) pins: TunePin[];
  /** Grows by one with every save of them. */
  @Column({ type: 'int', name: 'pins_version', default: 1 }) pinsVersion: number;
  /** What teachers say of it beside its text. */
  @Column({ type: 'jsonb', default: {} }) about: Partial<TuneNotes>;
  /** Grows by one with every save of that. */
  @Column({ type: 'int', name: 'about_version', default: 1 }) aboutVersion: number;
  /** Grows by one with every save of the text. */
  @Column({ type: 'int', default: 1 }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}
