export {
  CARD_KINDS,
  CARD_SIZES,
  type Card,
  type CardContent,
  type CardCurve,
  type CardKind,
  type CardRow,
  type CardSize,
} from "./card.ts";
export {
  claimCard,
  climbsCard,
  headlineCard,
  pairCard,
  rangesCard,
  standingsCard,
  stripCard,
  sweepCard,
  type ClaimedRanges,
} from "./cards.ts";
