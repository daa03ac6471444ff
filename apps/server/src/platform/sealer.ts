import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

const [algorithm, mark] = ['aes-256-gcm', 'sealed:'] as const;
const [nonceBytes, tagBytes] = [12, 16];

/** Seals texts in which a live link stands, so that whoever reads the database, or a backup of it, cannot use it: the key is no part of the database. */
export class Sealer {
  private readonly key: Buffer;

  /** @param secret the server's own; texts sealed with another cannot be opened */
  constructor(secret: string) {
    this.key = Buffer.from(hkdfSync('sha256', secret, '', 'zelpit: texts with links', 32));
  }

  seal(text: string): string {
    const nonce = randomBytes(nonceBytes);
    const cipher = createCipheriv(algorithm, this.key, nonce);
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    return `${mark}${Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64')}`;
  }

  /** The text, also one that was never sealed; undefined where the secret is another one now. */
  open(stored: string): string | undefined {
    if (!stored.startsWith(mark)) return stored;
    const bytes = Buffer.from(stored.slice(mark.length), 'base64');
    try {
      const decipher = createDecipheriv(algorithm, this.key, bytes.subarray(0, nonceBytes));
      decipher.setAuthTag(bytes.subarray(nonceBytes, nonceBytes + tagBytes));
      return decipher.update(bytes.subarray(nonceBytes + tagBytes), undefined, 'utf8') + decipher.final('utf8');
    } catch {
      return undefined;
    }
  }
}
