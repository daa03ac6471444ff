import type { MemberRole } from '@zelpit/contract';
import type { MovementChoices } from '@zelpit/contract';
import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

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

/** What an account may do in a studio. The account itself (name, address, password) is reached through functions only. */
@Entity({ name: 'membership' })
export class MembershipEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid', name: 'account_id' }) accountId: string;
  @Column({ type: 'text' }) role: MemberRole;
  /** The student and the tune that they had in hand last. */
  @Column({ type: 'uuid', name: 'in_hand_student', nullable: true }) inHandStudent: string | null;
  @Column({ type: 'uuid', name: 'in_hand_tune', nullable: true }) inHandTune: string | null;
}

/** An invitation, a new password, a student's tablet: used once, then no more. Of the token only its hash is kept. */
@Entity({ name: 'one_time_link' })
export class OneTimeLinkEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) purpose: 'invitation' | 'reset' | 'student' | 'parent' | 'door';
  @Column({ type: 'text', name: 'token_hash', unique: true }) tokenHash: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'uuid', name: 'teacher_id', nullable: true }) teacherId: string | null;
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'timestamptz', name: 'expires_at' }) expiresAt: Date;
  @Column({ type: 'timestamptz', name: 'used_at', nullable: true }) usedAt: Date | null;
}

/** A mail that was not sent: it waits in the outbox. */
@Entity({ name: 'mail' })
export class MailEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  /** The student that it is about; null for none. */
  @Column({ type: 'uuid', name: 'student_id', nullable: true }) studentId: string | null;
  @Column({ type: 'text' }) recipient: string;
  @Column({ type: 'text' }) subject: string;
  @Column({ type: 'text' }) body: string;
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}
