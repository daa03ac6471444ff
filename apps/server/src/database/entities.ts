import type { MovementChoices, TrialInput, TunePin } from '@zelpit/contract';
import type { Exercise, Instrument, KeptFingering, MovementDefinition, Tuning } from '@zelpit/core';
import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

@Entity({ name: 'studio' })
export class StudioEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'boolean', name: 'is_demo', default: false }) isDemo: boolean;
  /** How it plays its movements; null for the usual way. */
  @Column({ type: 'jsonb', name: 'movement_choices', nullable: true }) movementChoices: MovementChoices | null;
  /** Grows by one with every save of them. */
  @Column({ type: 'int', name: 'movement_choices_version', default: 1 }) movementChoicesVersion: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

@Entity({ name: 'teacher' })
export class TeacherEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) name: string;
  /** Lower case. */
  @Column({ type: 'text', unique: true }) email: string;
  @Column({ type: 'text', name: 'password_hash' }) passwordHash: string;
  @Column({ type: 'text', default: 'owner' }) role: 'owner' | 'teacher';
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

@Entity({ name: 'student' })
export class StudentEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) alias: string;
  @Column({ type: 'jsonb', nullable: true }) consent: { guardian: string; on: string; covers: string } | null;
  /** Ids of the movements that the student has. */
  @Column({ type: 'jsonb', default: [] }) movements: string[];
  /** Grows by one with every save. */
  @Column({ type: 'int', default: 1 }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}

@Entity({ name: 'tune' })
export class TuneEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text' }) rhythm: string;
  @Column({ type: 'text' }) meter: string;
  @Column({ type: 'text', name: 'music_key' }) musicKey: string;
  @Column({ type: 'int' }) bars: number;
  @Column({ type: 'int' }) outside: number;
  @Column({ type: 'text' }) instrument: string;
  @Column({ type: 'text' }) abc: string;
  /** Fingerings that must be taken, one a note. */
  @Column({ type: 'jsonb', default: [] }) pins: TunePin[];
  /** Grows by one with every save. */
  @Column({ type: 'int', default: 1 }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}

@Entity({ name: 'sheet' })
export class SheetEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'uuid', name: 'student_id' }) studentId: string;
  @Column({ type: 'uuid', name: 'tune_id', nullable: true }) tuneId: string | null;
  @Column({ type: 'text' }) instrument: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text' }) note: string;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}

@Entity({ name: 'sheet_line' })
export class SheetLineEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'sheet_id' }) sheetId: string;
  @Column({ type: 'int' }) position: number;
  @Column({ type: 'text', unique: true }) code: string;
  @Column({ type: 'text' }) home: string;
  @Column({ type: 'text' }) other: string;
  @Column({ type: 'int' }) repetitions: number;
  @Column({ type: 'int', nullable: true }) tempo: number | null;
  @Column({ type: 'text' }) point: string;
  /** The line's own music; null for the change there and back. */
  @Column({ type: 'jsonb', nullable: true }) exercise: Exercise | null;
  /** When it was taken off its sheet; it keeps its code in case it comes back. */
  @Column({ type: 'timestamptz', name: 'removed_at', nullable: true }) removedAt: Date | null;
}

/** An instrument that somebody plays. The owner is a student, a teacher, or the studio where neither is there. */
@Entity({ name: 'instrument' })
export class InstrumentEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'uuid', name: 'teacher_id', nullable: true }) teacherId: string | null;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'text' }) hands: 'left-on-top' | 'right-on-top';
  @Column({ type: 'jsonb' }) tuning: Tuning;
  @Column({ type: 'jsonb' }) schools: Record<string, string>;
  @Column({ type: 'float8', name: 'reference_hertz', nullable: true }) referenceHertz: number | null;
  @Column({ type: 'jsonb', name: 'known_notes' }) knownNotes: string[];
  @Column({ type: 'text' }) note: string;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}

/** An instrument model that the studio made. */
@Entity({ name: 'model' })
export class ModelEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'jsonb' }) instrument: Instrument;
  @Column({ type: 'text', name: 'made_by' }) madeBy: string;
  /** Grows by one with every save. */
  @Column({ type: 'int' }) version: number;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
  @UpdateDateColumn({ type: 'timestamptz', name: 'updated_at' }) updatedAt: Date;
  @DeleteDateColumn({ type: 'timestamptz', name: 'deleted_at', nullable: true }) deletedAt: Date | null;
}

/** What a teacher said of one fingering of a model. */
@Entity({ name: 'fingering' })
export class FingeringEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
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

/** A movement as a studio plays it; without a definition it was confirmed as it is built in. */
@Entity({ name: 'movement' })
export class MovementEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) movement: string;
  @Column({ type: 'jsonb', nullable: true }) definition: MovementDefinition | null;
  @Column({ type: 'text', name: 'kept_by' }) keptBy: string;
  /** Day, as 2026-03-09. */
  @Column({ type: 'text', name: 'kept_on' }) keptOn: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

/** What a student, or a teacher trying it, did in one go: fingers played on keys, an ear tested, faults found. Kept as a log; nothing in it is changed. */
@Entity({ name: 'trial' })
export class TrialEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  /** Null for a teacher who tries it. */
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'text' }) model: string;
  @Column({ type: 'text' }) kind: TrialInput['result']['kind'];
  @Column({ type: 'jsonb' }) result: TrialInput['result'];
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

/** An invitation, a new password, a student's tablet: used once, then no more. Of the token only its hash is kept. */
@Entity({ name: 'one_time_link' })
export class OneTimeLinkEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) purpose: 'invitation' | 'reset' | 'student';
  @Column({ type: 'text', name: 'token_hash', unique: true }) tokenHash: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'uuid', name: 'teacher_id', nullable: true }) teacherId: string | null;
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'timestamptz', name: 'expires_at' }) expiresAt: Date;
  @Column({ type: 'timestamptz', name: 'used_at', nullable: true }) usedAt: Date | null;
}

/** What would be mailed. */
@Entity({ name: 'mail' })
export class MailEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) recipient: string;
  @Column({ type: 'text' }) subject: string;
  @Column({ type: 'text' }) body: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

export const entities = [
  StudioEntity,
  TeacherEntity,
  StudentEntity,
  TuneEntity,
  SheetEntity,
  SheetLineEntity,
  OneTimeLinkEntity,
  MailEntity,
  InstrumentEntity,
  ModelEntity,
  FingeringEntity,
  TrialEntity,
  MovementEntity,
];
