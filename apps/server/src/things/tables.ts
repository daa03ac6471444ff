import { MailEntity, OneTimeLinkEntity, StudioEntity, TeacherEntity } from '../accounts/account.entities';
import { things } from './things';

/** Every table that has an entity. */
export const tables = [StudioEntity, TeacherEntity, OneTimeLinkEntity, MailEntity, ...things.flatMap(({ entities }) => entities)];
