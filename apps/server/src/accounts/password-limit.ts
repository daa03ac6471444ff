import { rateLimit, type RateLimitRequestHandler } from 'express-rate-limit';
import { HttpProblem } from '../http/problem';

const quarterHour = 15 * 60 * 1000;
const wrongTries = 10;

/** Ten wrong passwords from one computer, then a quarter of an hour of silence. */
export function wrongPasswordLimit(): RateLimitRequestHandler {
  return rateLimit({
    windowMs: quarterHour,
    limit: wrongTries,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem(429, 'Too many tries', 'Too many wrong passwords from this computer. Wait a quarter of an hour and try again.');
    },
  });
}
