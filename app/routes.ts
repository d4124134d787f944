import { index, layout, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  route("units", "settings/units.ts"),
  route("strip/:testId/record", "strip/recordFile.ts"),
  layout("ui/frame.tsx", [
    index("today/today.tsx"),
    route("bikes", "bikes/list.tsx"),
    route("bikes/new", "bikes/new.tsx"),
    route("bikes/riders/:riderId", "bikes/rider.tsx"),
    route("bikes/:bikeId", "bikes/bike.tsx"),
    route("bikes/:bikeId/edit", "bikes/edit.tsx"),
    route("bikes/:bikeId/packs/:packId", "bikes/pack.tsx"),
    route("bikes/:bikeId/set-ups/:setUpId", "bikes/setUp.tsx"),
    route("strip", "strip/list.tsx"),
    route("strip/new", "strip/new.tsx"),
    route("strip/:testId", "strip/test.tsx"),
    route("strip/:testId/conditions", "strip/conditions.tsx"),
    route("strip/:testId/import", "strip/import.tsx"),
    route("strip/:testId/track", "strip/track.tsx"),
    route("strip/:testId/logger", "strip/logger.tsx"),
    route("compare", "compare/compare.tsx"),
    route("settings", "settings/settings.tsx"),
    route("*", "ui/notFound.tsx"),
  ]),
] satisfies RouteConfig;
