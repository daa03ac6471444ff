import { Column, CreateDateColumn, DeleteDateColumn, Entity, PrimaryColumn, UpdateDateColumn } from 'typeorm';

@Entity({ name: 'studio' })
export class StudioEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'boolean', name: 'is_demo', default: false }) isDemo: boolean;
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
  @CreateDateColumn({ type: 'timestamptz', name: 'created_at' }) createdAt: Date;
}

@Entity({ name: 'student' })
export class StudentEntity {
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @Column({ type: 'text' }) alias: string;
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
}

export const entities = [StudioEntity, TeacherEntity, StudentEntity, TuneEntity, SheetEntity, SheetLineEntity];
