/** How a towed unit's two lines are coupled. */
export type CouplerState = 'right' | 'crossed' | 'apart';
