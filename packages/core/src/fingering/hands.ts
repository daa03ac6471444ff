import { ZelpitFault } from '../fault';
import type { Finger, Instrument } from './instrument';

/** Which hand holds the upper end. */
export type Hands = 'left-on-top' | 'right-on-top';

/**
 * The instrument as it is played with the hands that way round: the same holes, other fingers on them.
 * @throws ZelpitFault `refused-hands` where the holes are cut for the left hand on top
 * @example withHands(practiceChanter, 'right-on-top').fingers[1].label // 'R index'
 */
export function withHands(instrument: Instrument, hands: Hands): Instrument {
  if (hands === 'left-on-top') return instrument;
  if (instrument.mirror?.kind === 'refused') throw new ZelpitFault('refused-hands', instrument.mirror.said, { id: instrument.id });
  return { ...instrument, fingers: instrument.fingers.map(exchanged) };
}

function exchanged({ label, spoken, hand, ...rest }: Finger): Finger {
  const isLeft = hand === 'left';
  const [sign, word] = isLeft ? (['R', 'right'] as const) : (['L', 'left'] as const);
  return { ...rest, hand: word, label: label.replace(/^[LR](?= )/, sign), spoken: spoken.replace(/^(left|right)(?= )/, word) };
}
