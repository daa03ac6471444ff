import { invitationDays, resetHours } from '@zelpit/contract';

export interface MailText {
  readonly subject: string;
  readonly body: string;
}

export const invitationMail = (name: string, studio: string, owner: string, link: string): MailText => ({
  subject: `${owner} invites you to ${studio}`,
  body: `Dear ${name},\n\n${owner} invites you to teach with Zelpit in ${studio}. Open this address to join; it works once, for ${invitationDays} days:\n\n${link}\n`,
});

export const resetMail = (name: string, link: string): MailText => ({
  subject: 'A new password for Zelpit',
  body: `Dear ${name},\n\nsomebody asked for a new password for your account. Open this address to set one; it works once, for ${resetHours} hours:\n\n${link}\n\nIf it was not you, do nothing: the old password holds.\n`,
});
