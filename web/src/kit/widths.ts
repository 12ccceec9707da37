/** Where the sheet has no margins left: the route is one line at the head, the verdict a bar at the foot. */
export const NARROW = '@media screen and (max-width: 1100px)'
/** Too narrow, or too low, for the checks to stand beside the sentence. */
export const LITTLE_ROOM = '@media screen and (max-width: 700px), screen and (max-width: 1100px) and (max-height: 900px)'
