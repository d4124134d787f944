/** How hard a rider works, in words. */
export const EFFORTS = ["none", "feather-light", "easy", "steady", "hard"] as const;
export type Effort = (typeof EFFORTS)[number];
