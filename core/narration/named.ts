/** Words that may stand between the name of a measure and its figure: "the volts came back up to 51". */
const BETWEEN =
  "'s|is|was|are|already|at|now|only|just|still|about|around|like|up|down|back|to|in|the|that|says?|said|reads?|reading|shows?|showing|currently|right|so|far|sitting|hovering|holding|steady|roughly|nearly|almost|a|my|our|on|of|here|has|have|been|actually|maybe|probably|came|comes|come|went|goes|dropped|drops|gone|wise|stands|got|coming|going|mode|level|eco|out|bouncing|around|between|anywhere|from|there|thing|number|figure|display|screen|computer|estimate|tonight|this|morning|afternoon|evening|high|low|quite|pretty|way|by|little|bit|slightly|it|for|day|ride|trip|lot|loop|journey|run|outing|whole|overall|had|climbed|crept|fell|falls|jumped|jumps|settled|leaked|rose|risen|fallen|dipped|sagged|sags|dips|creeping|climbing|dropping|falling|settling|rising|hits|hit|sits|averaging|looks|today|again|it's|,";
/** So many at most. */
const MOST = 6;

/** A measure's name right before a figure, with nothing between them that is of something else. */
export const namedBefore = (names: string): RegExp =>
  new RegExp(`\\b(?:${names})(?:'s)?(?: (?:${BETWEEN})){0,${MOST}} ?[,.:]? ?$`);
/** A measure's name right after a figure: "49.6 on the volts". */
export const namedAfter = (names: string): RegExp =>
  new RegExp(`^(?:on|for|by) (?:the |my |our )?(?:${names})\\b`);
