import { rateLimit, type RateLimitRequestHandler } from 'express-rate-limit';
import { HttpProblem } from '../http/problem';

const quarterHour = 15 * 60 * 1000;
const wrongTries = 10;
const askings = 20;

/** Ten wrong passwords from one computer, then a quarter of an hour of silence. */
export function wrongPasswordLimit(): RateLimitRequestHandler {
  return limited(wrongTries, true, 'Too many wrong passwords from this computer. Wait 15 minutes, then try again.');
}

/** Twenty studios, resets or looks at links from one computer, then a quarter of an hour of silence. */
export function askingLimit(): RateLimitRequestHandler {
  return limited(askings, false, 'Too many requests from this computer. Wait 15 minutes, then try again.');
}

function limited(limit: number, skipSuccessfulRequests: boolean, message: string): RateLimitRequestHandler {
  return rateLimit({
    windowMs: quarterHour,
    limit,
    skipSuccessfulRequests,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem('too-many-tries', message);
    },
  });
}
