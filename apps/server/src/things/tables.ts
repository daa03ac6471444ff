import { MailEntity, MembershipEntity, OneTimeLinkEntity, StudioEntity } from '../accounts/account.entities';
import { things } from './things';

/** Every table that has an entity. */
export const tables = [StudioEntity, MembershipEntity, OneTimeLinkEntity, MailEntity, ...things.flatMap(({ entities }) => entities)];
