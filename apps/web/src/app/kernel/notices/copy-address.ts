import type { NoticeService } from './notice.service';

/** Copies an address that somebody hands on, and says whether it went. */
export function copyAddress(address: string, notices: NoticeService): void {
  navigator.clipboard.writeText(address).then(
    () => notices.done('Address copied.'),
    () => notices.done('This browser does not let Zelpit copy. Select the address and copy it yourself.'),
  );
}
