export {
  CARD_KINDS,
  CARD_SIZES,
  type Card,
  type CardContent,
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
} from "./cards.ts";
