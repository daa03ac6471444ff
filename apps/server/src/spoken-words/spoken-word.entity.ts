import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Something that was said in a lesson. */
@Entity({ name: 'spoken_word' })
export class SpokenWordEntity {
  @PrimaryColumn({ type: 'uuid', name: 'studio_id' }) studioId: string;
  @PrimaryColumn({ type: 'uuid' }) id: string;
  @Column({ type: 'uuid', name: 'lesson_id' }) lessonId: string;
  /** Its sound. */
  @Column({ type: 'uuid', name: 'blob_id' }) blobId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'int' }) seconds: number;
  @Column({ type: 'timestamptz' }) at: Date;
  @Column({ type: 'timestamptz', name: 'kept_until' }) keptUntil: Date;
}
