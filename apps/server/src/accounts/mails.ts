import { invitationDays, resetHours } from '@zelpit/contract';

export interface MailText {
  readonly subject: string;
  readonly body: string;
}

export const invitationMail = (name: string, studio: string, owner: string, link: string): MailText => ({
  subject: `${owner} has invited you to ${studio}`,
  body: `Dear ${name},\n\n${owner} has invited you to teach in ${studio} with Zelpit. Open this link to join. It works once, within ${invitationDays} days:\n\n${link}\n`,
});

export const resetMail = (name: string, link: string): MailText => ({
  subject: 'Reset your Zelpit password',
  body: `Dear ${name},\n\nSomeone asked to reset the password of your Zelpit account. To choose a new one, open this link. It works once, within ${resetHours} hours:\n\n${link}\n\nIf this was not you, ignore this message. Your password has not been changed.\n\nZelpit\n`,
});
