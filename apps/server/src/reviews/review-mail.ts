import { invitationDays } from '@zelpit/contract';
import type { MailText } from '../accounts/mails';

/** The mail with which a review goes out. */
export const reviewMail = (student: string, teacher: string, title: string, link: string): MailText => ({
  subject: `${title} for ${student}`,
  body: `Hello,\n\n${teacher} has written what ${student} practises until the next lesson. Open it here. The link works once, within ${invitationDays} days, and keeps the device signed in:\n\n${link}\n`,
});
