export { meanWhileMoving, standsOf, stoodFor, type MovingMean, type Stand } from "./moving.ts";
export { odometerFactor, type OdometerFactor } from "./odometer.ts";
export {
  climbAlong,
  climbAt,
  haversine,
  profileOf,
  trackAt,
  type Track,
  type TrackProfile,
} from "./track.ts";
